<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { Button, Textarea } from '../kit';
  import FieldBox, { type FieldPlace } from './FieldBox.svelte';

  interface Props {
    label: string;
    value: string;
    hint?: string;
    /** What it looks like, as HTML, while it is typed. */
    shown?: (value: string) => string;
    at: FieldPlace;
    /** Takes it out of the text; nothing where it is not there yet. */
    ondrop?: (() => void) | undefined;
    onkeep: (value: string) => void;
    onleave: () => void;
  }
  /** A small field beside what stands in the text: a formula, a link, a word to oneself. */
  let { label, value, hint = '', shown, at, ondrop, onkeep, onleave }: Props = $props();
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

<FieldBox name="small" {label} {at} bind:element={box} onkeydown={onkey}>
  <Textarea aria-label={label} rows={2} placeholder={hint} bind:value={typed} />
  {#if shown}<p class="shown">{@html shown(typed)}</p>{/if}
  <div class="acts">
    <Button small look="main" keys="Enter" onclick={() => onkeep(typed.trim())}>Keep</Button>
    <Button small keys="Esc" onclick={onleave}>Leave</Button>
    {#if ondrop}<Button small look="quiet" onclick={ondrop}>Take out</Button>{/if}
  </div>
</FieldBox>

<style>
  .shown {
    min-height: 1.6em;
    overflow-x: auto;
  }
  .acts {
    display: flex;
    gap: 6px;
  }
</style>
