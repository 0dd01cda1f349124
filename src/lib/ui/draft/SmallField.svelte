<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { Button, Textarea } from '../kit';

  interface Props {
    label: string;
    value: string;
    hint?: string;
    /** What it looks like, as HTML, while it is typed. */
    shown?: (value: string) => string;
    top: number;
    left: number;
    /** It opens upwards from there. */
    above?: boolean;
    /** Takes it out of the text; nothing where it is not there yet. */
    ondrop?: (() => void) | undefined;
    onkeep: (value: string) => void;
    onleave: () => void;
  }
  /** A small field beside what stands in the text: a formula, a caption, a word to oneself. */
  let { label, value, hint = '', shown, top, left, above = false, ondrop, onkeep, onleave }: Props = $props();
  let typed = $state(untrack(() => value));
  let box: HTMLElement | undefined = $state();
  onMount(() => box?.querySelector('textarea')?.focus());
  function onkey(event: KeyboardEvent) {
    if (event.key === 'Escape') onleave();
    else if (event.key === 'Enter' && !event.shiftKey) onkeep(typed.trim());
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div
  class="small-field"
  role="dialog"
  aria-label={label}
  tabindex="-1"
  bind:this={box}
  style="top: {top}px; left: {left}px; {above ? 'translate: 0 -100%' : ''}"
  onkeydown={onkey}
>
  <Textarea aria-label={label} rows={2} placeholder={hint} bind:value={typed} />
  {#if shown}<p class="shown">{@html shown(typed)}</p>{/if}
  <div class="acts">
    <Button small look="main" keys="Enter" onclick={() => onkeep(typed.trim())}>Keep</Button>
    <Button small keys="Esc" onclick={onleave}>Leave</Button>
    {#if ondrop}<Button small look="quiet" onclick={ondrop}>Take out</Button>{/if}
  </div>
</div>

<style>
  .small-field {
    position: absolute;
    z-index: 15;
    display: grid;
    gap: 7px;
    width: min(420px, 92%);
    padding: 9px;
    border: 1px solid var(--edge);
    border-radius: 7px;
    background: var(--page);
    box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
  }
  .shown {
    min-height: 1.6em;
    overflow-x: auto;
  }
  .acts {
    display: flex;
    gap: 6px;
  }
</style>
