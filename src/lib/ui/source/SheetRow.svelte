<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A row of the sheet beside the fields of the record: what is asked, by a label or by fields of its own, and the answer. */
  let {
    label,
    of,
    asks,
    onleave,
    children,
  }: {
    label?: string;
    of?: string;
    asks?: Snippet;
    /** Called when the focus goes out of the row. */
    onleave?: () => void;
    children: Snippet;
  } = $props();
  let row: HTMLElement | undefined;
  let pressed = false;
  let waits = false;

  /** What is pressed elsewhere must not move away under the pointer before it is let go. */
  function left() {
    if (pressed) waits = true;
    else onleave?.();
  }
  function released() {
    pressed = false;
    if (!waits) return;
    waits = false;
    // After the click, which comes behind.
    setTimeout(() => row && !row.contains(document.activeElement) && onleave?.());
  }
</script>

<svelte:window
  onpointerdowncapture={() => (pressed = true)}
  onpointerupcapture={released}
  onpointercancelcapture={released}
/>

<div
  bind:this={row}
  class="row"
  onfocusout={({ currentTarget, relatedTarget }) => {
    if (!currentTarget.contains(relatedTarget as Node | null)) left();
  }}
>
  {#if asks}<span class="grid gap-1">{@render asks()}</span>{:else}<label for={of}>{label}</label>{/if}
  {@render children()}
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 110px minmax(0, 376px);
    gap: 4px 14px;
    align-items: start;
    margin-bottom: 8px;
  }
  label {
    padding-top: 7px;
    color: var(--ink-2);
    font-size: 13px;
  }
  @container (max-width: 520px) {
    .row {
      grid-template-columns: 1fr;
    }
  }
</style>
