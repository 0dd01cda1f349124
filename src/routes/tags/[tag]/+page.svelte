<script lang="ts">
  import { goto } from '$app/navigation';
  import { asking } from '$lib/core/query';
  import { locatorText } from '$lib/core/passages';
  import { Button, PageHead, Trail } from '$lib/ui/kit';
  import Reference from '$lib/ui/source/Reference.svelte';
  import TagChanges from '$lib/ui/source/TagChanges.svelte';
  import TagName from '$lib/ui/source/TagName.svelte';

  let { data } = $props();
  const tag = $derived(data.tag.tag);
  const named = $derived(encodeURIComponent(tag));
  const group = $derived(data.tagLooks[tag]?.group);
  const count = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;
  const both = (field: 'tag' | 'person' | 'container', value: string) =>
    `/sources?q=${encodeURIComponent(asking(['tag', [tag]], [field, [value]]))}`;
  const BESIDE = [
    ['tag', 'Stands with'],
    ['person', 'Most often by'],
    ['container', 'Most often in'],
  ] as const;
</script>

<svelte:head><title>{tag} · Tags · Retexa</title></svelte:head>

{#snippet onward(view: 'sources' | 'passages')}
  {@const { total, items } = data[view]}
  <p>
    <Button small href="/{view}?tag={named}"
      >{total > items.length
        ? `All ${count(total, view === 'sources' ? 'source' : 'passage')}`
        : `Open in ${view === 'sources' ? 'Sources' : 'Passages'}`}</Button
    >
  </p>
{/snippet}

<PageHead>
  <Trail above={[{ href: '/tags', name: 'Tags' }]} />
  <h1><TagName {tag} /></h1>
  <span class="sub"
    >{count(data.tag.sources, 'source')}, {count(data.tag.passages, 'passage')} in the library{group
      ? ` · ${group}`
      : ''}</span
  >
  <span class="flex-1"></span>
  <TagChanges
    {tag}
    tags={data.tags}
    onchanged={(name) => goto(name ? `/tags/${encodeURIComponent(name)}` : '/tags', { replaceState: true })}
  />
</PageHead>

<div class="page">
  <div class="sheet">
    <section aria-labelledby="of-sources">
      <h2 id="of-sources">Sources</h2>
      {#if data.sources.total}
        <ul>
          {#each data.sources.items as source (source.id)}
            <li>
              <a href="/sources/{source.id}"
                ><Reference
                  reference={source.reference}
                  fallback={`${source.label}. ${source.title || 'Untitled source'}`}
                /></a
              >
            </li>
          {/each}
        </ul>
        {@render onward('sources')}
      {:else}<p class="small-label">
          No source {data.projectId ? 'of this project ' : ''}has it.
        </p>{/if}
    </section>
    {#if data.passages.total}
      <section aria-labelledby="of-passages">
        <h2 id="of-passages">Passages</h2>
        <ul>
          {#each data.passages.items as passage (passage.id)}
            <li class="passage">
              {#if passage.exact}<p class="serif">
                  <mark class="passage {passage.tint}">{passage.wording ?? passage.exact}</mark>
                </p>{/if}
              {#if passage.gist || passage.ownWords}<p>{passage.gist || passage.ownWords}</p>{/if}
              <a
                class="link"
                href={passage.copyId
                  ? `/copies/${passage.copyId}?passage=${passage.id}`
                  : `/sources/${passage.sourceId}`}
                >{passage.sourceLabel}{passage.locator ? `, ${locatorText(passage.locator)}` : ''}</a
              >
            </li>
          {/each}
        </ul>
        {@render onward('passages')}
      </section>
    {/if}
  </div>
  <aside>
    {#each BESIDE as [field, head] (field)}
      {#if data.beside[field].length}
        <h2>{head}</h2>
        <ul>
          {#each data.beside[field] as { value, n } (value)}
            <li>
              {#if field === 'tag'}<a href="/tags/{encodeURIComponent(value)}"><TagName tag={value} /></a
                >{:else}<span>{value}</span>{/if}
              <a
                class="link"
                href={both(field, value)}
                aria-label="{count(n, 'source')} with {tag} and {value}">{n.toLocaleString('en')}</a
              >
            </li>
          {/each}
        </ul>
      {/if}
    {/each}
  </aside>
</div>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 300px;
    min-height: 100%;
  }
  .sheet {
    max-width: 860px;
    padding: 6px 26px 60px;
  }
  h2 {
    margin: 18px 0 6px;
    font-size: 15px;
    font-weight: 650;
  }
  .sheet li {
    padding: 9px 0;
    border-bottom: 1px solid var(--rule);
  }
  .sheet li a:not(.link) {
    display: block;
  }
  .sheet p:has(> :global(a)) {
    margin-top: 10px;
  }
  .passage {
    display: grid;
    gap: 4px;
    font-size: 15px;
  }
  .passage .serif {
    font-size: 16px;
  }
  aside {
    padding: 6px 22px 60px;
    border-left: 1px solid var(--margin-rule);
  }
  aside li {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    padding: 3px 0;
    font-size: 14px;
    overflow-wrap: anywhere;
  }
  @media (max-width: 900px) {
    .page {
      grid-template-columns: 1fr;
    }
    aside {
      border-top: 1px solid var(--rule);
      border-left: 0;
    }
  }
</style>
