<script lang="ts">
  import { ChevronDownOutline, ChevronUpOutline, CloseOutline } from 'flowbite-svelte-icons';
  import { MOST_HITS } from '$lib/core/passages';
  import { debounce } from '../frame/client';
  import { Button, Input } from '../kit';
  import type { Hits } from './hits.svelte';

  /** Looks for words in the document that is open. */
  let { hits, onleave }: { hits: Hits; onleave: () => void } = $props();
  // svelte-ignore state_referenced_locally
  let words = $state(hits.words);
  let field: HTMLInputElement | undefined = $state();
  $effect(() => field?.select());

  const look = debounce(() => hits.look(words), 120);
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'Escape') onleave();
    else if (event.key === 'Enter' && event.shiftKey) hits.previous();
    else if (event.key === 'Enter') {
      if (hits.words === words) hits.next();
      else hits.look(words);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="find" role="search" aria-label="Find in this document">
  <Input
    bind:element={field}
    bind:value={words}
    oninput={look}
    {onkeydown}
    placeholder="Find in this document"
    aria-label="Find in this document"
  />
  <span class="small-label count" role="status"
    >{#if hits.words.trim()}{hits.count
        ? `${hits.nth.toLocaleString('en')} of ${hits.count.toLocaleString('en')}${hits.count === MOST_HITS ? ' or more' : ''}`
        : 'Not in this document'}{/if}</span
  >
  <Button small look="quiet" aria-label="Place before" title="Shift+Enter" onclick={hits.previous}
    ><ChevronUpOutline size="sm" /></Button
  >
  <Button small look="quiet" aria-label="Next place" title="Enter" onclick={hits.next}
    ><ChevronDownOutline size="sm" /></Button
  >
  <Button small look="quiet" aria-label="Close the search" title="Esc" onclick={onleave}
    ><CloseOutline size="sm" /></Button
  >
</div>

<style>
  .find {
    display: flex;
    gap: 6px;
    align-items: center;
    padding: 6px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .find :global(input) {
    max-width: 320px;
  }
  .count {
    min-width: 130px;
  }
</style>
