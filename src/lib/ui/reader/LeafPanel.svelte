<script lang="ts">
  import type { ContentsEntry } from '$lib/server/copies';
  import { call } from '../frame/client';
  import { Button } from '../kit';
  import { virtualRows } from '../kit/virtual-rows.svelte';
  import type { Leaves } from './leaves';

  interface Props {
    copyId: string;
    leaves: Leaves;
    leaf: number;
    /** How many passages stand on each leaf. */
    marked: Map<number, number>;
    ongo: (leaf: number) => void;
  }
  /** The document's own contents, and its pages small. */
  let { copyId, leaves, leaf, marked, ongo }: Props = $props();

  let contents = $state.raw<ContentsEntry[] | undefined>();
  let shows = $state<'contents' | 'pages'>('contents');
  let list: HTMLElement | undefined = $state();

  $effect(() => {
    void call<{ contents: ContentsEntry[] }>('GET', `/copies/${copyId}/contents`).then(
      (got) => {
        contents = got.contents;
        if (got.contents.length === 0) shows = 'pages';
      },
      () => ((contents = []), (shows = 'pages')),
    );
  });
  const { virtual } = virtualRows({
    scroller: () => list,
    count: () => (shows === 'pages' ? leaves.count : 0),
    height: () => 176,
  });
  /** The last entry of the contents that begins at or before the leaf that is seen. */
  const current = $derived.by(() => {
    let found = -1;
    contents?.forEach((entry, i) => {
      if (entry.leaf !== null && entry.leaf <= leaf) found = i;
    });
    return found;
  });
  let brought = false;
  $effect(() => {
    if (shows !== 'pages' || !list) return void (brought = false);
    if (brought) return;
    brought = true;
    $virtual.scrollToIndex(leaf - 1, { align: 'center' });
  });
</script>

<nav class="panel" aria-label="Contents and pages">
  <div class="choice" role="group">
    <Button small look="chip" aria-pressed={shows === 'contents'} onclick={() => (shows = 'contents')}
      >Contents</Button
    >
    <Button small look="chip" aria-pressed={shows === 'pages'} onclick={() => (shows = 'pages')}>Pages</Button
    >
  </div>
  {#if shows === 'contents'}
    <ul>
      {#each contents ?? [] as entry, i (i)}
        <li style="padding-left: {8 + Math.min(entry.depth, 5) * 14}px" class:current={i === current}>
          <Button look="bare" class="entry" disabled={entry.leaf === null} onclick={() => ongo(entry.leaf!)}
            ><span>{entry.title}</span><span class="small-label"
              >{entry.leaf ? leaves.label(entry.leaf) || entry.leaf : ''}</span
            ></Button
          >
        </li>
      {:else}
        <li class="small-label p-3">
          {contents ? 'The document has no contents of its own.' : 'Reading the contents …'}
        </li>
      {/each}
    </ul>
  {:else}
    <div class="pages" bind:this={list}>
      <div style="height: {$virtual.getTotalSize()}px; position: relative">
        {#each $virtual.getVirtualItems() as row (row.index)}
          {@const n = row.index + 1}
          <Button
            look="bare"
            class={['small', n === leaf && 'current']}
            style="top: {row.start}px"
            aria-label="Page {leaves.label(n) || n}"
            onclick={() => ongo(n)}
          >
            <img src="/copies/{copyId}/leaves/{n}?small=1" alt="" loading="lazy" />
            <span class="small-label"
              >{leaves.label(n) || n}{marked.get(n) ? ` · ${marked.get(n)} kept` : ''}</span
            >
          </Button>
        {/each}
      </div>
    </div>
  {/if}
</nav>

<style>
  .panel {
    display: flex;
    flex-direction: column;
    width: 232px;
    min-height: 0;
    border-right: 1px solid var(--margin-rule);
    background: var(--side);
  }
  .choice {
    display: flex;
    gap: 6px;
    padding: 8px;
  }
  ul,
  .pages {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  li :global(.entry) {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    width: 100%;
    padding: 4px 8px 4px 0;
    font-size: 13px;
    line-height: 1.3;
    text-align: left;
    cursor: pointer;
  }
  li:hover {
    text-decoration: underline;
  }
  li.current {
    background: var(--thread-soft);
    font-weight: 650;
  }
  .pages :global(.small) {
    position: absolute;
    display: grid;
    justify-items: center;
    gap: 2px;
    width: 100%;
    height: 170px;
    padding: 4px;
    cursor: pointer;
  }
  .pages :global(.small img) {
    height: 140px;
    max-width: 190px;
    object-fit: contain;
    border: 1px solid var(--rule);
    background: #fff;
  }
  .pages :global(.small.current img) {
    outline: 2px solid var(--thread);
  }
  @media (max-width: 900px) {
    .panel {
      display: none;
    }
  }
</style>
