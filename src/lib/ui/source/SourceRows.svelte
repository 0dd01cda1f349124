<script lang="ts">
  import { SvelteMap } from 'svelte/reactivity';
  import { get } from 'svelte/store';
  import { onMount, tick, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { ShownReference } from '$lib/server/lists';
  import type { SourceItem } from '$lib/server/sources';
  import { call, debounce, isTyping } from '../frame/client';
  import { attempt } from '../frame/toasts.svelte';
  import { gridAct } from '../kit/grid-keys';
  import { virtualRows } from '../kit/virtual-rows.svelte';
  import { dragging, type Dragging } from '../outline/dragging';
  import { outlining } from '../outline/tree.svelte';
  import { chosen, place, walk } from './selection.svelte';
  import ColumnHeads from './ColumnHeads.svelte';
  import type { SourceColumns } from './columns.svelte';
  import SourceRow from './SourceRow.svelte';

  /** The sources that were asked for, as far as one looks: rows beyond the first are fetched and printed as they come into view. */
  let {
    items: first,
    total,
    sort,
    look,
    columns,
    drags = false,
    section,
  }: {
    /** The first of them. */
    items: SourceItem[];
    total: number;
    sort: string;
    look: { style: string; locale: string };
    /** The columns it is shown in; else as references. */
    columns: SourceColumns | undefined;
    /** Rows can be dragged to a section or a project. */
    drags?: boolean;
    /** The section whose own order the list is in: rows can be put in another. */
    section?: string | undefined;
  } = $props();

  const PAGE = 100;
  const later = new SvelteMap<number, SourceItem>();
  const printed = new SvelteMap<string, ShownReference>();
  let at = $state(place.search === page.url.search ? place.at : 0);
  /** The row a selection with Shift begins at. */
  let anchor = 0;
  let scroller: HTMLElement | undefined = $state();
  // Not reactive on purpose: a note of what is on its way.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  const asked = new Set<string>();

  const itemAt = (i: number): SourceItem | undefined => first[i] ?? later.get(i);
  const keyOf = (item: SourceItem) => `${item.id}:${item.revision}:${look.style}:${look.locale}`;
  const referenceOf = (item: SourceItem) => item.reference ?? printed.get(keyOf(item));

  const { virtual, measure } = virtualRows({
    scroller: () => scroller,
    count: () => total,
    height: () => (columns ? 37 : 74),
  });
  $effect(() => {
    void first;
    untrack(() => {
      later.clear();
      asked.clear();
      if (at >= total) at = Math.max(0, total - 1);
    });
  });
  $effect(() => {
    [walk.search, walk.total] = [page.url.search, total];
    walk.ids.clear();
    first.forEach((item, i) => walk.ids.set(i, item.id));
    for (const [i, item] of later) walk.ids.set(i, item.id);
  });
  $effect(() => {
    place.search = page.url.search;
    place.at = at;
  });
  onMount(() => {
    if (at > 0) get(virtual).scrollToIndex(at, { align: 'center' });
  });

  const fetchPage = async (n: number) => {
    const before = itemAt(n * PAGE - 1);
    const from = before && sort !== 'fit' && sort !== 'own' ? `after=${before.id}` : `offset=${n * PAGE}`;
    const search = `${page.url.search || '?'}&${from}`;
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

  /** What goes along when a row is moved: all that are selected, if it is one of them. */
  const along = (id: string) => (chosen.has(id) ? [...chosen] : [id]);
  const moving = (item: SourceItem | undefined, index: number): Dragging => ({
    drag:
      item && drags
        ? () => {
            const ids = along(item.id);
            return {
              what: { kind: 'sources', ids },
              words: ids.length === 1 ? item.label : `${ids.length} sources`,
            };
          }
        : undefined,
    can: (what) => (item && section && what.kind === 'sources' ? ['reorder-before', 'reorder-after'] : []),
    drop: (what, operation) => {
      if (what.kind !== 'sources' || !section) return;
      const before = operation === 'reorder-before' ? item : itemAt(index + 1);
      void outlining.order(section, what.ids, before?.id ?? null);
    },
  });
  /** Puts the current row, or those selected with it, one place up or down in the section. */
  async function shift(by: 1 | -1) {
    const item = itemAt(at);
    if (!item || !section) return;
    const ids = along(item.id);
    const places = ids.flatMap((id) => [...walk.ids].find(([, one]) => one === id)?.[0] ?? []);
    const beyond = by === -1 ? Math.min(...places) - 1 : Math.max(...places) + 2;
    if (beyond < 0 || beyond > total) return;
    const made = await outlining.order(section, ids, itemAt(beyond)?.id ?? null);
    if (made) await go(at + by);
  }

  function toggle(id: string | undefined) {
    if (id && !chosen.delete(id)) chosen.add(id);
  }

  async function go(to: number) {
    at = to;
    get(virtual).scrollToIndex(at, { align: 'auto' });
    await tick();
    requestAnimationFrame(() =>
      scroller?.querySelector<HTMLElement>(`[data-index="${at}"]`)?.focus({ preventScroll: true }),
    );
  }

  /** Selects the rows from the anchor to where one is now, as far as they are known. */
  function extend(to: number) {
    const [from, until] = [Math.min(anchor, to), Math.max(anchor, to)];
    for (let i = from; i <= until; i++) {
      const item = itemAt(i);
      if (item) chosen.add(item.id);
    }
  }

  function onkey(event: KeyboardEvent) {
    if (event.defaultPrevented || isTyping(event)) return;
    if (section && event.altKey && event.shiftKey && /^Arrow(Up|Down)$/.test(event.key)) {
      event.preventDefault();
      return void shift(event.key === 'ArrowUp' ? -1 : 1);
    }
    const target = event.target as HTMLElement;
    // With nothing in particular in focus, the list is what the keys are for.
    if (!scroller?.contains(target) && target !== document.body && target.id !== 'main') return;
    const inView = Math.floor((scroller?.clientHeight ?? 600) / (columns ? 37 : 74)) - 1;
    const act = gridAct(event, at, total, inView);
    if (!act) return;
    const onControl = target.closest('a, button, [role=group]');
    if (onControl && (act.kind === 'open' || act.kind === 'select')) return;
    event.preventDefault();
    if (act.kind === 'move') {
      if (!act.extends) anchor = act.to;
      else extend(act.to);
      void go(act.to);
    } else if (act.kind === 'select') {
      anchor = at;
      toggle(itemAt(at)?.id);
    } else if (act.kind === 'none') chosen.clear();
    else if (itemAt(at)) void goto(`/sources/${itemAt(at)!.id}`);
  }

  function click(event: MouseEvent, index: number) {
    at = index;
    if (!event.shiftKey) anchor = index;
    else if (!(event.target as HTMLElement).closest('a')) extend(index);
  }
</script>

<svelte:window onkeydown={onkey} />

<div
  class="rows"
  bind:this={scroller}
  role="grid"
  aria-label="Sources"
  aria-multiselectable="true"
  aria-rowcount={total}
>
  {#if columns}<ColumnHeads {columns} {sort} />{/if}
  <div
    style="height: {$virtual.getTotalSize()}px; position: relative; {columns
      ? `width: max-content; min-width: 100%; --tracks: ${columns.tracks()}`
      : ''}"
    role="rowgroup"
  >
    {#each $virtual.getVirtualItems() as row (row.index)}
      {@const item = itemAt(row.index)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <div
        class="row"
        class:columns={Boolean(columns)}
        class:current={row.index === at}
        class:chosen={item && chosen.has(item.id)}
        role="row"
        tabindex={row.index === at ? 0 : -1}
        aria-rowindex={row.index + 1}
        aria-selected={Boolean(item && chosen.has(item.id))}
        data-index={row.index}
        data-source={item?.id}
        use:measure
        use:dragging={moving(item, row.index)}
        onclick={(e) => click(e, row.index)}
        style="transform: translateY({row.start}px)"
      >
        {#if item}
          <SourceRow
            {item}
            reference={referenceOf(item)}
            letter={sort === 'author' && item.letter !== itemAt(row.index - 1)?.letter ? item.letter : ''}
            columns={columns?.shown()}
            chosen={chosen.has(item.id)}
            current={row.index === at}
            ontoggle={() => toggle(item.id)}
          />
        {:else}<span></span><span></span><span class="small-label" role="gridcell">…</span>{/if}
      </div>
    {/each}
  </div>
</div>

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
  .row:focus-visible {
    outline-offset: -2px;
  }
  .row:has(:global(.all)) {
    z-index: 5;
  }
  .current {
    border-left-color: var(--thread);
    background: var(--row-chosen);
  }
  .chosen {
    background: var(--thread-soft);
  }
  .row:global([data-drop='reorder-before']) {
    box-shadow: inset 0 2px 0 var(--thread);
  }
  .row:global([data-drop='reorder-after']) {
    box-shadow: inset 0 -2px 0 var(--thread);
  }
  .columns {
    grid-template-columns: 12px 22px var(--tracks) minmax(0, 1fr);
    border-bottom: 1px solid var(--rule);
  }
  @media (max-width: 760px) {
    .row:not(.columns) {
      grid-template-columns: 0 20px minmax(0, 1fr);
      padding-bottom: 6px;
      border-bottom: 1px solid var(--rule);
    }
  }
</style>
