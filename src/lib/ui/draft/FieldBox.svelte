<script lang="ts" module>
  /** Where a small field opens, in pixels of the text’s own measure; `above`: it opens upwards from there. */
  export interface FieldPlace {
    top: number;
    left: number;
    above?: boolean;
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** What it is for, as it is read out. */
    label: string;
    at: FieldPlace;
    /** What it is called among the small fields. */
    name: string;
    element?: HTMLElement | undefined;
    onkeydown?: (event: KeyboardEvent) => void;
    children: Snippet;
  }
  /** A small field over the text, beside what it is about. */
  let { label, at, name, element = $bindable(), onkeydown, children }: Props = $props();
</script>

<div
  class="field-box {name}-field"
  role="dialog"
  aria-label={label}
  tabindex="-1"
  bind:this={element}
  style="top: {at.top}px; left: {at.left}px; {at.above ? 'translate: 0 -100%' : ''}"
  {onkeydown}
>
  {@render children()}
</div>

<style>
  .field-box {
    position: absolute;
    z-index: 15;
    display: grid;
    gap: 7px;
    width: min(460px, 92%);
    padding: 9px;
    border: 1px solid var(--edge);
    border-radius: 7px;
    background: var(--page);
    box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
  }
</style>
