<script lang="ts">
  import { keyFor } from '$lib/ui/frame/actions.svelte';
  import QueryHelp from '$lib/ui/frame/QueryHelp.svelte';
  import QueryProblems from '$lib/ui/frame/QueryProblems.svelte';
  import { Button, Empty, Key, PageHead } from '$lib/ui/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { locatorText } from '$lib/core/passages';
  import type { Excerpt } from '$lib/core/text';
  import type { FoundKind, Hit } from '$lib/server/search';
  import Reference from '$lib/ui/source/Reference.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { call, COPY_KINDS } from '$lib/ui/frame/client';
  import { narrow } from '$lib/ui/frame/narrowing';
  import { attempt } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();

  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const others = $derived([
    { kind: 'passages' as const, name: 'Passages', found: data.found.passages },
    { kind: 'copies' as const, name: 'In the text of copies', found: data.found.copies },
    { kind: 'texts' as const, name: 'In what you write', found: data.found.texts },
    { kind: 'notes' as const, name: 'Notes', found: data.found.notes },
    { kind: 'leads' as const, name: 'Leads', found: data.found.leads },
  ]);
  const total = $derived(others.reduce((sum, o) => sum + o.found.total, data.found.sources.total));

  /** Where a hit is seen in its place. */
  function hrefOf(kind: FoundKind, hit: Hit): string {
    if (kind === 'passages')
      return hit.copyId ? `/copies/${hit.copyId}?passage=${hit.id}` : `/passages?source=${hit.sourceId}`;
    if (hit.at) return hit.at;
    if (kind === 'copies') return `/copies/${hit.id}?words=${encodeURIComponent(hit.excerpt.exact)}`;
    return `/${kind}?q=${encodeURIComponent(data.words)}${data.everywhere ? '&in=library' : ''}`;
  }

  /** What is written belongs to a project, which is chosen on the way there. */
  async function follow(event: MouseEvent, hit: Hit) {
    if (!hit.at || hit.projectId === data.projectId || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    await attempt(() => call('POST', '/api/scope', { projectId: hit.projectId }));
    await goto(hit.at, { invalidateAll: true });
  }
</script>

<svelte:head><title>Search · Retexa</title></svelte:head>

<PageHead>
  <h1>Search</h1>
  {#if data.words}<span class="sub" role="status"
      >{total.toLocaleString('en')} found for “{data.words}”
      {project && !data.everywhere ? `in ${project.name}` : 'in the whole library'}</span
    >{/if}
  <QueryHelp />
  <span class="flex-1"></span>
  {#if project}
    <Button look="chip" aria-pressed={!data.everywhere} onclick={() => narrow({ in: undefined })}
      >{project.name}</Button
    >
    <Button look="chip" aria-pressed={data.everywhere} onclick={() => narrow({ in: 'library' })}
      >The whole library</Button
    >
  {/if}
</PageHead>

{#snippet stretch(excerpt: Excerpt)}
  {#each excerpt.parts as part, i (i)}{#if part.hit}<mark>{part.text}</mark>{:else}{part.text}{/if}{/each}
{/snippet}

{#snippet more(kind: FoundKind, shown: number, of: number)}
  {#if of > shown}
    <p class="more">
      {#if page.url.searchParams.get('all') === kind}
        <span class="small-label">The first {shown} of {of.toLocaleString('en')} are shown. Add a word.</span>
      {:else}
        <Button small look="quiet" onclick={() => narrow({ all: kind })}
          >Show all {of.toLocaleString('en')}</Button
        >
      {/if}
    </p>
  {/if}
{/snippet}

{#if !data.words}
  <Empty>
    <h2>Search everything</h2>
    <p>
      Sources, passages, the text of their copies, outlines, drafts, notes and leads. Type a word in the field
      above; the field can be reached from anywhere with <Key keys={keyFor('search') ?? 'Ctrl+K'} />.
    </p>
  </Empty>
{:else if total === 0}
  <Empty>
    <h2>Nothing has “{data.words}”</h2>
    <QueryProblems text={data.words} />
    {#if data.found.near}
      {@const near = data.found.near}
      <p>
        Near it, the library has <Button look="link" onclick={() => narrow({ q: near })}>{near}</Button>.
      </p>
    {/if}
    <p>
      {#if project && !data.everywhere}
        Nothing in {project.name} has all of these words.
        <Button look="link" onclick={() => narrow({ in: 'library' })}>Search the whole library</Button>
      {:else}Every word must be there; try fewer, or the beginning of one.{/if}
    </p>
  </Empty>
{:else}
  <div class="body">
    {#if data.found.sources.total}
      <section aria-label="Sources">
        <h2>Sources <span>{data.found.sources.total.toLocaleString('en')}</span></h2>
        <ul>
          {#each data.found.sources.items as item (item.id)}
            <li class="source">
              <TypeGlyph type={item.type} class="text-ink-3" />
              <a href="/sources/{item.id}"
                ><Reference
                  reference={item.reference}
                  fallback={[item.label, item.title].filter(Boolean).join('. ')}
                /></a
              >
            </li>
          {/each}
        </ul>
        {@render more('sources', data.found.sources.items.length, data.found.sources.total)}
      </section>
    {/if}
    {#each others.filter((o) => o.found.total) as { kind, name, found } (kind)}
      <section aria-label={name}>
        <h2>{name} <span>{found.total.toLocaleString('en')}</span></h2>
        <ul>
          {#each found.items as hit (hit.id)}
            <li>
              <a class="hit serif" href={hrefOf(kind, hit)} onclick={(e) => follow(e, hit)}
                >{@render stretch(hit.excerpt)}</a
              >
              <p class="from">
                {#if hit.copyKind}<span class="kind">{COPY_KINDS[hit.copyKind]}</span>{/if}
                {#if hit.label}<span>{hit.label}</span>{/if}
                {#if hit.sourceLabel}<a href="/sources/{hit.sourceId}">{hit.sourceLabel}</a>{/if}
                {#if hit.locator}<span>{locatorText(hit.locator)}</span>{/if}
              </p>
            </li>
          {/each}
        </ul>
        {@render more(kind, found.items.length, found.total)}
      </section>
    {/each}
  </div>
{/if}

<style>
  .body {
    display: grid;
    gap: 26px;
    max-width: 860px;
    padding: 18px 26px 60px;
  }
  section h2 {
    margin-bottom: 4px;
    color: var(--ink-2);
    font-size: 13px;
    font-weight: 650;
  }
  section h2 span {
    color: var(--ink-3);
    font-weight: 500;
  }
  li {
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  .source {
    display: flex;
    gap: 12px;
  }
  .source a:hover,
  .hit:hover {
    text-decoration: underline;
    text-decoration-color: var(--edge);
    text-underline-offset: 3px;
  }
  .hit {
    display: block;
    font-size: 15.5px;
    line-height: 1.45;
    overflow-wrap: anywhere;
  }
  mark {
    border-bottom: 2px solid var(--thread);
    background: var(--thread-soft);
    color: inherit;
  }
  .from {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    padding-top: 3px;
    color: var(--ink-3);
    font-size: 12.5px;
  }
  .kind::first-letter {
    text-transform: uppercase;
  }
  .from a {
    color: var(--ink-2);
  }
  .from a:hover {
    text-decoration: underline;
  }
  .more {
    padding-top: 8px;
  }
</style>
