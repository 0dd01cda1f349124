<script lang="ts">
  import { RedoOutline } from 'flowbite-svelte-icons';
  import { Button, Input, Select } from '../kit';
  import type { Leaves, Turn } from './leaves';
  import { quiet } from './quiet.svelte';

  interface Props {
    leaves: Leaves;
    /** The leaf that is seen first, counted from 1. */
    leaf: number;
    turn: Turn;
    panel: boolean;
    ongo: (leaf: number) => void;
    onturn: (turn: Turn) => void;
    onpanel: () => void;
  }
  /** Where one is in a document with pages, and how they are drawn. */
  let { leaves, leaf, turn, panel, ongo, onturn, onpanel }: Props = $props();
  const label = $derived(leaves.label(leaf) || String(leaf));

  /** Goes to a printed page; where no leaf has that label, to the leaf of that number in the file. */
  function go(wanted: string) {
    const text = wanted.trim();
    if (!text) return;
    for (let n = 1; n <= leaves.count; n++)
      if (leaves.label(n).toLowerCase() === text.toLowerCase()) return ongo(n);
    const n = Number(text);
    if (Number.isInteger(n) && n >= 1 && n <= leaves.count) ongo(n);
  }
  const zoom = (by: number) =>
    quiet.set({ zoom: Math.round(Math.min(4, Math.max(0.4, quiet.now.zoom * by)) * 100) / 100 });
</script>

<div class="bar" role="toolbar" aria-label="Pages">
  <Button small look="chip" aria-pressed={panel} onclick={onpanel}>Contents</Button>
  <span class="flex-1"></span>
  <Button small look="quiet" aria-label="Page before" disabled={leaf <= 1} onclick={() => ongo(leaf - 1)}
    >‹</Button
  >
  <label class="at"
    ><span class="small-label">page</span><Input
      value={label}
      aria-label="Printed page"
      onchange={(e) => go(e.currentTarget.value)}
    /><span class="small-label">{leaf.toLocaleString('en')} of {leaves.count.toLocaleString('en')}</span
    ></label
  >
  <Button
    small
    look="quiet"
    aria-label="Next page"
    disabled={leaf >= leaves.count}
    onclick={() => ongo(leaf + 1)}>›</Button
  >
  <span class="flex-1"></span>
  <Button small look="quiet" aria-label="Smaller" onclick={() => zoom(1 / 1.15)}>−</Button>
  <output class="small-label">{Math.round(quiet.now.zoom * 100)} %</output>
  <Button small look="quiet" aria-label="Larger" onclick={() => zoom(1.15)}>+</Button>
  <Select
    look="chip"
    aria-label="What fits"
    value={quiet.now.fit}
    onchange={(e) => quiet.set({ fit: e.currentTarget.value as 'width' | 'page', zoom: 1 })}
  >
    <option value="width">width fits</option>
    <option value="page">whole page fits</option>
  </Select>
  <Button
    small
    look="chip"
    aria-pressed={quiet.now.twoUp}
    onclick={() => quiet.set({ twoUp: !quiet.now.twoUp })}>Two beside each other</Button
  >
  <Button small look="quiet" aria-label="Turn the pages" onclick={() => onturn(((turn + 1) % 4) as Turn)}
    ><RedoOutline size="sm" /></Button
  >
</div>

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
    padding: 4px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .at {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .at :global(input) {
    width: 58px;
    min-height: 28px;
    text-align: center;
  }
</style>
