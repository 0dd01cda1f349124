<script lang="ts">
  import { FileLinesOutline, QuoteOutline } from 'flowbite-svelte-icons';
  import { SvelteMap, SvelteSet } from 'svelte/reactivity';
  import { get } from 'svelte/store';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { ShownReference } from '$lib/server/services/printing';
  import type { SourceItem } from '$lib/server/services/sources';
  import Findings from '$lib/ui/source/Findings.svelte';
  import Reference from '$lib/ui/source/Reference.svelte';
  import SelectionBar from '$lib/ui/source/SelectionBar.svelte';
  import SourceFilters from '$lib/ui/source/SourceFilters.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { openByHand } from '$lib/ui/capture/byhand.svelte';
  import { call, debounce, isTyping } from '$lib/ui/frame/client';
  import { narrow } from '$lib/ui/frame/narrowing';
  import { attempt } from '$lib/ui/frame/toasts.svelte';
  import { virtualRows } from '$lib/ui/kit/virtual-rows.svelte';

  let { data } = $props();

  const PAGE = 100;
  const HEADS = [
    { name: 'Creators', sort: 'author' },
    { name: 'Year', sort: 'newest' },
    { name: 'Title', sort: 'title' },
    { name: 'Appeared in', sort: undefined },
    { name: 'Citekey', sort: undefined },
    { name: '❝', sort: undefined },
  ];
  const later = new SvelteMap<number, SourceItem>();
  let printed = new SvelteMap<string, ShownReference>();
  let chosen = new SvelteSet<string>();
  let at = $state(0);
  let scroller: HTMLElement | undefined = $state();
  let columns = $state(false);
  // Not reactive on purpose: a note of what is on its way.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  const asked = new Set<string>();

  const itemAt = (i: number): SourceItem | undefined => data.items[i] ?? later.get(i);
  const keyOf = (item: SourceItem) => `${item.id}:${item.revision}:${data.look.style}:${data.look.locale}`;
  const referenceOf = (item: SourceItem) => item.reference ?? printed.get(keyOf(item));
  const filtered = $derived([...page.url.searchParams.keys()].some((k) => k !== 'sort'));

  const { virtual, measure } = virtualRows({
    scroller: () => scroller,
    count: () => data.total,
    height: () => (columns ? 37 : 74),
  });
  $effect(() => {
    void data.items;
    untrack(() => {
      later.clear();
      asked.clear();
      for (const id of chosen)
        if (!data.items.some((i) => i.id === id) && data.total <= data.items.length) chosen.delete(id);
      if (at >= data.total) at = Math.max(0, data.total - 1);
    });
  });

  const fetchPage = async (n: number) => {
    const search = `${page.url.search || '?'}&offset=${n * PAGE}`;
    const { items } = await call<{ items: SourceItem[] }>('GET', `/api/sources${search}`);
    items.forEach((item, i) => later.set(n * PAGE + i, item));
  };
  const printMissing = debounce(async (rows: SourceItem[]) => {
    const missing = rows.filter((i) => !referenceOf(i));
    for (const item of missing) asked.add(keyOf(item));
    if (missing.length === 0) return;
    const references = await attempt(() =>
      call<ShownReference[]>('POST', '/api/printed', { ids: missing.map((i) => i.id) }),
    );
    const byId = new Map(references?.map((r) => [r.id, r]));
    for (const item of missing)
      printed.set(keyOf(item), byId.get(item.id) ?? { id: item.id, html: '', text: '' });
  }, 30);

  $effect(() => {
    const rows = $virtual.getVirtualItems();
    const wanted = new Set(rows.filter((r) => !itemAt(r.index)).map((r) => Math.floor(r.index / PAGE)));
    for (const n of wanted) {
      if (asked.has(`page ${n}`)) continue;
      asked.add(`page ${n}`);
      void attempt(() => fetchPage(n));
    }
    const items = rows.map((r) => itemAt(r.index)).filter((i) => i !== undefined);
    if (items.some((i) => !referenceOf(i) && !asked.has(keyOf(i)))) void printMissing(items);
  });

  function toggle(id: string) {
    if (!chosen.delete(id)) chosen.add(id);
  }

  function move(by: number) {
    at = Math.min(data.total - 1, Math.max(0, at + by));
    get(virtual).scrollToIndex(at, { align: 'auto' });
  }

  function onkey(event: KeyboardEvent) {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    const item = itemAt(at);
    const acts: Record<string, (() => void) | undefined> = {
      j: () => move(1),
      k: () => move(-1),
      x: item && (() => toggle(item.id)),
      Enter: item && (() => void goto(`/sources/${item.id}`)),
      Escape: () => chosen.clear(),
    };
    const interactive = (event.target as HTMLElement).closest('a, button');
    if (event.key === 'Enter' && interactive) return;
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:head><title>Sources · Retexa</title></svelte:head>
<svelte:window onkeydown={onkey} />

<header class="head">
  <h1>Sources</h1>
  <span class="sub">
    {data.total.toLocaleString('en')}
    {filtered ? 'found' : data.projectId ? 'in this project' : 'in the library'}, as they print in
    <a class="link" href="/references">{data.look.name} · {data.look.locale}</a>
  </span>
  <span class="flex-1"></span>
  <button class="chip" aria-pressed={!columns} onclick={() => (columns = false)}>References</button>
  <button class="chip" aria-pressed={columns} onclick={() => (columns = true)}>Columns</button>
  <SourceFilters facets={data.facets} counts={data.counts} sort={data.sort} {filtered} />
</header>

{#if data.total === 0}
  <div class="empty">
    {#if filtered}
      <h2>Nothing fits</h2>
      <p>No source fits what you look for. <a class="link" href="/sources">Show all sources</a></p>
    {:else}
      <h2>No sources yet</h2>
      <p>
        Paste the address or DOI of something you read into the field at the top, <a
          class="link"
          href="/import">import a file of references</a
        >, or <button class="link" onclick={() => openByHand()}>start one by hand</button>.
      </p>
    {/if}
  </div>
{:else}
  {#if columns}
    <div class="row columns titles" role="presentation">
      <span></span><span></span>
      {#each HEADS as { sort, name } (name)}
        {#if sort}<button
            aria-pressed={data.sort === sort}
            onclick={() => narrow({ sort: data.sort === sort && sort === 'newest' ? 'oldest' : sort })}
            >{name}{data.sort === sort
              ? ' ↓'
              : data.sort === 'oldest' && sort === 'newest'
                ? ' ↑'
                : ''}</button
          >
        {:else}<span>{name}</span>{/if}
      {/each}
    </div>
  {/if}
  <div class="rows" bind:this={scroller} role="list" aria-label="Sources">
    <div style="height: {$virtual.getTotalSize()}px; position: relative">
      {#each $virtual.getVirtualItems() as row (row.index)}
        {@const item = itemAt(row.index)}
        {@const before = itemAt(row.index - 1)}
        <div
          class="row"
          class:columns
          class:current={row.index === at}
          class:chosen={item && chosen.has(item.id)}
          role="listitem"
          data-index={row.index}
          data-source={item?.id}
          use:measure
          style="transform: translateY({row.start}px)"
        >
          {#if item}
            <span class="letter"
              >{data.sort === 'author' && item.letter !== before?.letter ? item.letter : ''}</span
            >
            <label class="pick"
              ><input
                type="checkbox"
                checked={chosen.has(item.id)}
                onchange={() => toggle(item.id)}
                aria-label="Select {item.label}"
              /><TypeGlyph type={item.type} /></label
            >
            {#if columns}
              <a class="cell" href="/sources/{item.id}">{item.people || '–'}</a>
              <span class="cell year">{item.year ?? '–'}</span>
              <a class="cell serif" href="/sources/{item.id}">{item.title || 'Untitled source'}</a>
              <span class="cell">{item.container}</span>
              <span class="cell key">{item.citekey}</span>
              <span class="cell counts">{item.passages || ''}</span>
            {:else}
              <a class="text" href="/sources/{item.id}">
                <Reference
                  reference={referenceOf(item)}
                  fallback={`${item.label}. ${item.title || 'Untitled source'}`}
                />
              </a>
              <div class="margin">
                <Findings
                  findings={item.findings}
                  questions={[
                    ...(data.twice[item.id]
                      ? [
                          {
                            sign: 'twice' as const,
                            text: 'Twice in the library?',
                            href: data.twice[item.id]!,
                          },
                        ]
                      : []),
                    ...(item.checked
                      ? []
                      : [
                          {
                            sign: 'question' as const,
                            text: 'Not checked yet',
                            href: `/intake?at=${item.id}`,
                          },
                        ]),
                  ]}
                />
                <p class="has">
                  {#if item.passages}<span title="{item.passages} passages"
                      ><QuoteOutline size="xs" ariaLabel="Passages" />{item.passages}</span
                    >{/if}
                  {#if item.copies}<span title="{item.copies} copies"
                      ><FileLinesOutline size="xs" ariaLabel="Copies" />Page{item.copies > 1
                        ? ` ${item.copies}`
                        : ''}</span
                    >{/if}
                  {#each item.tags as tag (tag)}<button class="tag" onclick={() => narrow({ tag })}
                      >{tag}</button
                    >{/each}
                </p>
              </div>
            {/if}
          {:else}<span></span><span></span><span class="small-label">…</span>{/if}
        </div>
      {/each}
    </div>
  </div>
{/if}

{#if chosen.size}
  <SelectionBar ids={[...chosen]} projects={data.projects} onclear={() => chosen.clear()} />
{/if}

<style>
  .rows {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  .row {
    position: absolute;
    top: 0;
    left: 0;
    display: grid;
    grid-template-columns: 12px 22px minmax(0, 1fr) 232px;
    gap: 0 12px;
    width: 100%;
    padding-left: 14px;
    border-left: 3px solid transparent;
  }
  .current {
    border-left-color: var(--thread);
    background: var(--row-chosen);
  }
  .chosen {
    background: var(--thread-soft);
  }
  .letter {
    padding-top: 12px;
    color: var(--thread);
    font-family: var(--font-serif);
    font-size: 14px;
    font-weight: 700;
  }
  .pick {
    position: relative;
    padding-top: 13px;
    color: var(--ink-3);
    cursor: pointer;
  }
  .pick input {
    position: absolute;
    top: 14px;
    left: 1px;
    opacity: 0;
  }
  .row:hover .pick input,
  .chosen .pick input,
  .pick input:focus-visible {
    opacity: 1;
  }
  .row:hover .pick :global(svg),
  .chosen .pick :global(svg),
  .pick:focus-within :global(svg) {
    opacity: 0;
  }
  .text {
    padding: 10px 22px 11px 0;
    border-bottom: 1px solid var(--rule);
  }
  .margin {
    padding: 11px 16px 8px 15px;
    border-left: 1px solid var(--margin-rule);
  }
  .has {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    padding-top: 3px;
    color: var(--ink-3);
    font-size: 12px;
  }
  .has span {
    display: inline-flex;
    align-items: center;
    gap: 4px;
  }
  .tag {
    border-bottom: 2px solid var(--tint-evidence);
    color: var(--ink-2);
    cursor: pointer;
  }
  .columns {
    grid-template-columns:
      12px 22px minmax(120px, 1.2fr) 48px minmax(160px, 2fr) minmax(90px, 1fr)
      150px 30px;
    border-bottom: 1px solid var(--rule);
  }
  .titles {
    position: static;
    flex: none;
    padding-block: 4px;
    background: var(--side);
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 600;
  }
  .titles button {
    text-align: left;
    cursor: pointer;
  }
  .titles button[aria-pressed='true'] {
    color: var(--ink);
  }
  .columns .pick,
  .columns .letter {
    padding-top: 8px;
  }
  .columns .pick input {
    top: 10px;
  }
  .cell {
    padding: 8px 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .cell.key {
    color: var(--ink-3);
    font-size: 12px;
    line-height: 20px;
  }
  .cell.serif {
    font-size: 15px;
  }
  @media (max-width: 760px) {
    .row:not(.columns) {
      grid-template-columns: 0 20px minmax(0, 1fr);
      padding-bottom: 6px;
      border-bottom: 1px solid var(--rule);
    }
    .text {
      padding: 8px 10px 2px 0;
      border: 0;
    }
    .margin {
      grid-column: 3;
      padding: 0 8px;
    }
    .columns .cell:nth-of-type(n + 5) {
      display: none;
    }
  }
</style>
