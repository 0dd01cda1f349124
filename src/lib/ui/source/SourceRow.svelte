<script lang="ts">
  import type { ShownReference } from '$lib/server/lists';
  import type { SourceItem } from '$lib/server/sources';
  import { Checkbox } from '../kit';
  import type { SourceColumn } from './columns.svelte';
  import MarginMarks from './MarginMarks.svelte';
  import Reference from './Reference.svelte';
  import TypeGlyph from './TypeGlyph.svelte';

  /** What is in a row of Sources: the reference as it prints with its margin, or the columns. */
  let {
    item,
    reference,
    letter,
    columns,
    chosen,
    current,
    ontoggle,
  }: {
    item: SourceItem;
    reference: ShownReference | undefined;
    /** The letter it begins, where it is the first with it. */
    letter: string;
    columns: readonly SourceColumn[] | undefined;
    chosen: boolean;
    current: boolean;
    ontoggle: () => void;
  } = $props();
  // One stop for the Tab key: what is in the other rows is reached by going there.
  const tabindex = $derived(current ? 0 : -1);
</script>

<span class="letter" role="gridcell">{letter}</span>
<div class="pick" role="gridcell">
  <label
    ><Checkbox checked={chosen} onchange={ontoggle} aria-label="Select {item.label}" {tabindex} /><TypeGlyph
      type={item.type}
    /></label
  >
</div>
{#if columns}
  {#each columns as column (column.id)}
    {@const text = column.text(item)}
    <div class="cell {column.look ?? ''}" role="gridcell" data-tip={text}>
      {#if column.leads}<a href="/sources/{item.id}" draggable="false" {tabindex}>{text}</a>{:else}{text}{/if}
    </div>
  {/each}
{:else}
  <div class="text" role="gridcell">
    <a href="/sources/{item.id}" draggable="false" {tabindex}>
      <Reference {reference} fallback={`${item.label}. ${item.title || 'Untitled source'}`} />
    </a>
  </div>
  <div class="margin" role="gridcell"><MarginMarks {item} {tabindex} /></div>
{/if}

<style>
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
  }
  .pick label {
    cursor: pointer;
  }
  .pick :global(input) {
    position: absolute;
    top: 14px;
    left: 1px;
    opacity: 0;
  }
  :global(.row:hover) .pick :global(input),
  :global(.chosen) .pick :global(input),
  .pick :global(input:focus-visible) {
    opacity: 1;
  }
  :global(.row:hover) .pick :global(svg),
  :global(.chosen) .pick :global(svg),
  .pick:focus-within :global(svg) {
    opacity: 0;
  }
  .text {
    padding: 10px 22px 11px 0;
    border-bottom: 1px solid var(--rule);
  }
  .text a {
    display: block;
  }
  .margin {
    position: relative;
    border-left: 1px solid var(--margin-rule);
  }
  :global(.columns) .letter,
  :global(.columns) .pick {
    padding-top: 8px;
  }
  :global(.columns) .pick :global(input) {
    top: 10px;
  }
  .cell {
    padding: 8px 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .cell.number {
    font-variant-numeric: tabular-nums;
    text-align: right;
  }
  .cell.small {
    color: var(--ink-3);
    font-size: 12px;
    line-height: 20px;
  }
  .cell.serif {
    font-size: 15px;
  }
  @media (max-width: 760px) {
    .text {
      padding: 8px 10px 2px 0;
      border: 0;
    }
    .margin {
      grid-column: 3;
      padding: 0 8px;
      border: 0;
    }
  }
</style>
