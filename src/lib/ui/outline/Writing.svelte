<script lang="ts">
  import { onMount } from 'svelte';
  import { Textarea } from '../kit';

  interface Props {
    label: string;
    /** What stands there when one begins. */
    words: string;
    /** It is the name of a section, in one line. */
    name: boolean;
    /** What was written is kept, and one stays, goes on below, or cuts it in two at a place. */
    onkeep: (words: string, then: 'stay' | 'below' | { cut: number }) => void;
    onjoin: (words: string) => void;
    onleave: () => void;
    /** What stands there while one types, for being there again when one comes back. */
    ontype: (words: string) => void;
    /** What was typed before and not kept. */
    typed?: string | undefined;
    /** What somebody wrote there meanwhile. */
    theirs?: string | undefined;
  }
  /** A line of an outline while it is written. Leaving it keeps what was written; Escape leaves it as it was. */
  let { label, words, name, onkeep, onjoin, onleave, ontype, typed, theirs }: Props = $props();
  // What one begins with; what comes from elsewhere meanwhile is told when it is kept.
  // svelte-ignore state_referenced_locally
  let text = $state(typed ?? words);
  let field: HTMLTextAreaElement | undefined = $state();
  let over = false;
  function finish(work: () => void) {
    if (over) return;
    over = true;
    work();
  }
  onMount(() => {
    field?.focus();
    field?.setSelectionRange(text.length, text.length);
  });
  function onkey(event: KeyboardEvent) {
    event.stopPropagation();
    if (event.isComposing) return;
    const control = event.ctrlKey || event.metaKey;
    if (event.key === 'Escape') return finish(onleave);
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      const cut = field?.selectionStart ?? text.length;
      return finish(() => onkeep(text, control && !name ? { cut } : text.trim() ? 'below' : 'stay'));
    }
    if (event.key === 'Backspace' && control && !name) {
      event.preventDefault();
      finish(() => onjoin(text));
    }
  }
</script>

<div class="writing">
  <Textarea
    aria-label={label}
    placeholder={name ? label : 'Say it in your own words. Enter keeps it and goes on below.'}
    maxlength={name ? 200 : 5000}
    rows={name ? 1 : Math.min(8, Math.max(1, Math.ceil(text.length / 80)))}
    bind:value={text}
    bind:element={field}
    onkeydown={onkey}
    oninput={() => ontype(text)}
    onblur={() => finish(() => (text.trim() === words ? onleave() : onkeep(text, 'stay')))}
  />
  {#if theirs !== undefined}<p class="theirs">
      Written here meanwhile: <span class="serif">{theirs}</span> Enter keeps yours in its place, Esc theirs.
    </p>{/if}
</div>

<style>
  .writing {
    flex: 1;
    min-width: 0;
  }
  .theirs {
    padding-top: 4px;
    color: var(--blue-pencil);
    font-size: 12.5px;
  }
  .writing :global(textarea) {
    width: 100%;
    font-size: 14.5px;
  }
</style>
