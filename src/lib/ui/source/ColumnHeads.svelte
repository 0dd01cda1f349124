<script lang="ts">
  import { narrow } from '../frame/narrowing';
  import { Button } from '../kit';
  import { columnOf, type SourceColumn, type SourceColumns } from './columns.svelte';
  import { orderOf, orderWith } from './orders';

  /** The heads of the columns: they order the list, are dragged to another place, and made wider or narrower. */
  let { columns, sort }: { columns: SourceColumns; sort: string } = $props();

  const headers = $derived(columns.table.getHeaderGroups()[0]!.headers);
  let dragged = $state<string>();
  let over = $state<string>();

  /** Several orders are numbered. */
  const several = $derived(sort.includes(','));
  const order = (column: SourceColumn, within: boolean) => {
    const next = orderWith(column, sort, within);
    narrow({ sort: next === 'author' ? undefined : next || undefined });
  };

  const STEP = 16;
  function onkey(event: KeyboardEvent, id: string) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (!by || !(event.altKey || event.shiftKey)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.altKey) columns.move(id, by);
    else columns.widen(id, by * STEP);
    const column = columns.table.getColumn(id)!;
    columns.said = event.altKey
      ? `${columnOf(id).head} is column ${columns.shown().findIndex((c) => c.id === id) + 1}`
      : `${columnOf(id).head} is ${column.getSize()} pixels wide`;
  }
  function drop(event: DragEvent, id: string) {
    event.preventDefault();
    if (dragged) columns.move(dragged, id);
    dragged = over = undefined;
  }
</script>

<div class="heads" role="row" style="grid-template-columns: 12px 22px {columns.tracks()} minmax(0, 1fr)">
  <span role="columnheader" aria-label="Letter"></span><span role="columnheader" aria-label="Selected"></span>
  {#each headers as header (header.id)}
    {@const column = columnOf(header.column.id)}
    {@const ordered = orderOf(column, sort)}
    <!-- svelte-ignore a11y_interactive_supports_focus -->
    <div
      class="head"
      class:over={over === column.id && dragged !== column.id}
      class:number={column.look === 'number'}
      role="columnheader"
      aria-sort={ordered ? (ordered.falls ? 'descending' : 'ascending') : column.sorts ? 'none' : undefined}
      draggable="true"
      ondragstart={(e) => {
        // Its edge is drawn, not the head dragged.
        if (headers.some((h) => h.column.getIsResizing())) return e.preventDefault();
        dragged = column.id;
        e.dataTransfer?.setData('text/plain', column.head);
      }}
      ondragover={(e) => {
        if (!dragged) return;
        e.preventDefault();
        over = column.id;
      }}
      ondragend={() => (dragged = over = undefined)}
      ondrop={(e) => drop(e, column.id)}
      onkeydown={(e) => onkey(e, column.id)}
    >
      <Button
        look="bare"
        class={['name', ordered && 'sorted']}
        title="{column.sorts
          ? 'Press: order by it. With Shift: order by it within the order there is. '
          : ''}Alt and arrow: move the column. Shift and arrow: make it wider or narrower."
        onclick={column.sorts ? (e: MouseEvent) => order(column, e.shiftKey) : undefined}
        >{column.head}{ordered ? (ordered.falls ? ' ↓' : ' ↑') : ''}{#if ordered && several}<sub
            >{ordered.at + 1}</sub
          >{/if}</Button
      >
      <!-- What it does is done by Shift and an arrow too. -->
      <span
        class="edge"
        class:going={header.column.getIsResizing()}
        aria-hidden="true"
        onmousedown={header.getResizeHandler()}
        ontouchstart={header.getResizeHandler()}
        ondblclick={() => columns.table.getColumn(column.id)!.resetSize()}
      ></span>
    </div>
  {/each}
</div>

<style>
  .heads {
    position: sticky;
    z-index: 4;
    top: 0;
    display: grid;
    min-width: 100%;
    width: max-content;
    padding-left: 14px;
    gap: 0 12px;
    border-left: 3px solid transparent;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 600;
  }
  .head {
    position: relative;
    display: flex;
    min-width: 0;
    padding: 4px 0;
    cursor: grab;
  }
  .head.over {
    box-shadow: -2px 0 0 var(--thread);
  }
  .head.number {
    justify-content: flex-end;
  }
  .head :global(.name) {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .head :global(.sorted) {
    color: var(--ink);
  }
  .edge {
    position: absolute;
    top: 0;
    right: -9px;
    bottom: 0;
    width: 7px;
    cursor: col-resize;
  }
  .edge::after {
    position: absolute;
    top: 5px;
    bottom: 5px;
    left: 3px;
    border-left: 1px solid var(--edge);
    content: '';
  }
  .edge:hover::after,
  .edge.going::after {
    border-left: 2px solid var(--thread);
  }
</style>
