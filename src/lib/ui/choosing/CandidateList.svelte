<script lang="ts">
  import { get } from 'svelte/store';
  import type { Candidate } from '$lib/server/choosing';
  import { gridAct } from '../kit/grid-keys';
  import { virtualRows } from '../kit/virtual-rows.svelte';

  interface Props {
    among: readonly Candidate[];
    /** The place of the one that is looked at. */
    at: number;
    /** What stands at the end of a line, and in what look. */
    mark: (id: string) => { text: string; look: string } | undefined;
    onat: (at: number) => void;
  }
  /** What is chosen among, a line each; one of them is looked at. */
  let { among, at, mark, onat }: Props = $props();
  let scroller: HTMLElement | undefined = $state();
  const id = $props.id();
  const { virtual, measure } = virtualRows({
    scroller: () => scroller,
    count: () => among.length,
    height: () => 56,
  });
  $effect(() => {
    if (at >= 0) get(virtual).scrollToIndex(at, { align: 'auto' });
  });
  function onkeydown(event: KeyboardEvent) {
    const act = gridAct(event, at, among.length, Math.floor((scroller?.clientHeight ?? 0) / 56));
    if (act?.kind !== 'move') return;
    event.preventDefault();
    onat(act.to);
  }
</script>

<div
  class="list"
  role="listbox"
  tabindex="0"
  aria-label="Candidates"
  aria-activedescendant={among[at] && `${id}-${at}`}
  bind:this={scroller}
  {onkeydown}
>
  <div style="height: {$virtual.getTotalSize()}px; position: relative" role="presentation">
    {#each $virtual.getVirtualItems() as row (row.index)}
      {@const one = among[row.index]}
      {#if one}
        {@const said = mark(one.id)}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          class="line"
          id="{id}-{row.index}"
          data-index={row.index}
          role="option"
          tabindex="-1"
          aria-selected={row.index === at}
          aria-posinset={row.index + 1}
          aria-setsize={among.length}
          style="transform: translateY({row.start}px)"
          use:measure
          onclick={() => onat(row.index)}
        >
          <span class="name serif">{one.headline}</span>
          {#if said}<span class="mark {said.look}">{said.text}</span>{/if}
        </div>
      {/if}
    {/each}
  </div>
</div>

<style>
  .list {
    min-height: 0;
    overflow-y: auto;
    border-right: 1px solid var(--rule);
  }
  .list:focus-visible {
    outline: 2px solid var(--thread);
    outline-offset: -2px;
  }
  .line {
    position: absolute;
    top: 0;
    left: 0;
    display: flex;
    gap: 10px;
    align-items: baseline;
    width: 100%;
    padding: 8px 14px 8px 26px;
    border-bottom: 1px solid var(--rule);
    cursor: pointer;
  }
  .line[aria-selected='true'] {
    background: var(--row-chosen);
    box-shadow: inset 3px 0 0 var(--thread);
  }
  .name {
    display: -webkit-box;
    flex: 1;
    min-width: 0;
    overflow: hidden;
    font-size: 15px;
    line-height: 1.3;
    overflow-wrap: anywhere;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
  }
  .mark {
    flex: none;
    font-size: 12.5px;
    font-weight: 650;
  }
</style>
