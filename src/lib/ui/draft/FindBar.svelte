<script lang="ts">
  import type { Editor } from '@tiptap/core';
  import { onMount } from 'svelte';
  import { Button, Input, Search } from '../kit';
  import { hitsIn, hitsNow, replaceHits, showHits } from './find';

  /** Finding words in the text, and putting others in their place. */
  let { editor, beat, onleave }: { editor: Editor; beat: number; onleave: () => void } = $props();
  let words = $state('');
  let other = $state('');
  let entry: HTMLInputElement | undefined = $state();
  const now = $derived((void beat, hitsNow(editor)));
  const look = (at = 0, go = true) => showHits(editor, hitsIn(editor.state.doc, words), at, go);
  function step(by: number) {
    const { hits, at } = hitsNow(editor);
    if (hits.length) showHits(editor, hits, (at + by + hits.length) % hits.length);
  }
  function replace(all: boolean) {
    const { hits, at } = hitsNow(editor);
    const some = all ? hits : hits.slice(at, at + 1);
    if (!some.length) return;
    replaceHits(editor, some, other);
    const left = hitsIn(editor.state.doc, words);
    showHits(editor, left, Math.min(at, Math.max(0, left.length - 1)), !all);
  }
  onMount(() => {
    const { from, to } = editor.state.selection;
    if (to > from && to - from < 80) words = editor.state.doc.textBetween(from, to);
    entry?.focus();
    entry?.select();
    look();
    return () => showHits(editor, [], 0);
  });
  function onkey(event: KeyboardEvent) {
    if (event.key === 'Escape') {
      onleave();
      editor.commands.focus();
    } else if (event.key === 'Enter' && event.target === entry) step(event.shiftKey ? -1 : 1);
    else if (event.key === 'Enter' && (event.target as HTMLElement).matches('input')) replace(false);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div class="find" role="search" aria-label="In this text" onkeydown={onkey}>
  <Search
    bind:element={entry}
    aria-label="Find in the text"
    placeholder="Find"
    bind:value={words}
    oninput={() => look()}
  />
  <span class="small-label" role="status"
    >{words
      ? now.hits.length
        ? `${now.at + 1} of ${now.hits.length.toLocaleString('en')}`
        : 'nowhere'
      : ''}</span
  >
  <Button
    small
    disabled={!now.hits.length}
    title="Before (Shift+Enter)"
    aria-label="The one before"
    onclick={() => step(-1)}>↑</Button
  >
  <Button small disabled={!now.hits.length} title="Next (Enter)" aria-label="The next" onclick={() => step(1)}
    >↓</Button
  >
  <Input aria-label="Put in its place" placeholder="Put in its place" bind:value={other} />
  <Button small disabled={!now.hits.length} onclick={() => replace(false)}>Replace</Button>
  <Button small disabled={!now.hits.length} onclick={() => replace(true)}>Replace all</Button>
  <Button small look="quiet" keys="Esc" onclick={onleave}>Done</Button>
</div>

<style>
  .find {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    padding: 6px 20px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .find :global(input) {
    width: 190px;
  }
  .small-label {
    min-width: 64px;
  }
</style>
