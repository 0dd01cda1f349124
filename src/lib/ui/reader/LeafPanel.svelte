<script lang="ts">
  import type { ContentsEntry } from '$lib/server/copies';
  import { call } from '../frame/client';
  import { Button, Tabs } from '../kit';
  import { virtualRows } from '../kit/virtual-rows.svelte';
  import ContentsList from './ContentsList.svelte';
  import type { Leaves } from './leaves';
  import ReaderPanel from './ReaderPanel.svelte';

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

<ReaderPanel label="Contents and pages">
  <Tabs
    label="Contents and pages"
    tabs={[
      { id: 'contents', name: 'Contents' },
      { id: 'pages', name: 'Pages' },
    ]}
    bind:selected={shows}
    children={shown}
  />
</ReaderPanel>

{#snippet shown(what: typeof shows)}
  {#if what === 'contents'}
    <ContentsList
      entries={(contents ?? []).map(({ title, depth, leaf: n }) => ({
        title,
        depth,
        at: n === null ? '' : leaves.label(n) || String(n),
        leads: n !== null,
      }))}
      {current}
      ongo={(i) => ongo(contents![i]!.leaf!)}
      none={contents ? 'The document has no contents of its own.' : 'Reading the contents …'}
    />
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
{/snippet}

<style>
  .pages {
    flex: 1;
    min-height: 0;
    overflow: auto;
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
</style>
