<script lang="ts">
  import { Button } from '../kit';

  interface Props {
    /** What the parts of a document are called; `at` is where they begin in words, `leads` whether one can go there. */
    entries: readonly { title: string; depth: number; at?: string; leads: boolean }[];
    /** The entry one is in, by its place; -1 before the first. */
    current: number;
    ongo: (index: number) => void;
    /** What is said where there are none. */
    none: string;
  }
  /** The contents of a document, one below the other; the part that is seen is shown. */
  let { entries, current, ongo, none }: Props = $props();
  let list: HTMLElement | undefined = $state();
  $effect(() => {
    list?.children[current]?.scrollIntoView({ block: 'nearest' });
  });
</script>

<ul bind:this={list}>
  {#each entries as { title, depth, at, leads }, i (i)}
    <li
      style="padding-left: {8 + Math.min(depth, 5) * 14}px"
      class:current={i === current}
      aria-current={i === current ? 'location' : undefined}
    >
      <Button look="bare" class="entry" disabled={!leads} onclick={() => ongo(i)}
        ><span>{title}</span><span class="small-label">{at ?? ''}</span></Button
      >
    </li>
  {:else}
    <li class="small-label p-3">{none}</li>
  {/each}
</ul>

<style>
  ul {
    flex: 1;
    min-height: 0;
    padding: 6px 0;
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
</style>
