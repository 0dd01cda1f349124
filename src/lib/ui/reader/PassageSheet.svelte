<script lang="ts">
  import { Button, Checkbox, Input, Select, Textarea } from '../kit';
  import { onMount } from 'svelte';
  import {
    KIND_LABELS,
    LOCATOR_LABELS,
    locatorName,
    overlap,
    PASSAGE_KINDS,
    RUN_LIMIT,
    TINTS,
    type Locator,
    type PassageKind,
    type Tint,
  } from '$lib/core/passages';
  import type { PassageWords } from '$lib/server/passages';
  import TintSwatch from './TintSwatch.svelte';

  interface Props {
    exact: string;
    said: PassageWords;
    /** Whether this is a passage already kept. */
    kept: boolean;
    /** These words are a passage already; what that one says. */
    already?: string | undefined;
    onkeep: (said: PassageWords) => Promise<void>;
    /** Told of what is typed, before it is kept. */
    ontype?: (said: PassageWords) => void;
    onleave: () => void;
    onbin?: () => void;
  }
  let { exact, said, kept, already, onkeep, ontype, onleave, onbin }: Props = $props();

  // The sheet edits a draft of its own; nothing is kept before it is said so.
  // svelte-ignore state_referenced_locally
  let kind = $state<PassageKind>(said.kind);
  // svelte-ignore state_referenced_locally
  let tint = $state<Tint>(said.tint);
  // svelte-ignore state_referenced_locally
  let gist = $state(said.gist);
  // svelte-ignore state_referenced_locally
  let ownWords = $state(said.ownWords);
  // svelte-ignore state_referenced_locally
  let label = $state<Locator['label']>(said.locator?.label ?? 'page');
  // svelte-ignore state_referenced_locally
  let value = $state(said.locator?.value ?? '');
  // svelte-ignore state_referenced_locally
  let isPrivate = $state(said.visibility === 'private');
  let first: HTMLInputElement | undefined = $state();
  const taken = $derived(overlap(exact, ownWords));

  // Scrolling is the reader's business: the sheet may not have its place yet.
  onMount(() => first?.focus({ preventScroll: true }));

  const words = (): PassageWords => ({
    kind,
    tint,
    gist: gist.trim(),
    ownWords: ownWords.trim(),
    locator: value.trim() ? { label, value: value.trim() } : null,
    visibility: isPrivate ? 'private' : 'library',
  });
  $effect(() => ontype?.(words()));

  // Pressed twice is meant once.
  let busy = $state(false);
  async function keep() {
    if (busy) return;
    busy = true;
    await onkeep(words());
    busy = false;
  }

  function onkeydown(event: KeyboardEvent) {
    event.stopPropagation();
    const target = event.target as HTMLElement;
    if (event.key === 'Escape') onleave();
    else if (
      event.key === 'Enter' &&
      !event.shiftKey &&
      !(target instanceof HTMLTextAreaElement) &&
      !(target instanceof HTMLButtonElement)
    )
      void keep();
    else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void keep();
    else if (
      /^[1-5]$/.test(event.key) &&
      !(
        target instanceof HTMLInputElement ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement
      )
    )
      tint = TINTS[Number(event.key) - 1]!;
    else if (event.altKey && /^[1-5]$/.test(event.key)) tint = TINTS[Number(event.key) - 1]!;
    else return;
    event.preventDefault();
  }
</script>

<div class="sheet" role="dialog" tabindex="-1" aria-label={kept ? 'Passage' : 'New passage'} {onkeydown}>
  <div class="kinds" role="group" aria-label="Kind">
    {#each PASSAGE_KINDS as k (k)}<Button look="bare" aria-pressed={kind === k} onclick={() => (kind = k)}
        >{KIND_LABELS[k]}</Button
      >{/each}
  </div>
  <div class="tints" role="group" aria-label="Tint">
    {#each TINTS as t, i (t)}<Button
        look="bare"
        aria-pressed={tint === t}
        title="Alt+{i + 1}"
        onclick={() => (tint = t)}><TintSwatch tint={t} /> {t.charAt(0).toUpperCase() + t.slice(1)}</Button
      >{/each}
  </div>
  <div class="line">
    <label class="grow"
      ><span class="small-label">Gist</span><Input
        bind:element={first}
        bind:value={gist}
        placeholder="Its point, in one line"
      /></label
    >
    <label class="locator">
      <span class="small-label">Place in the work</span>
      <span class="flex gap-1">
        <Select class="label-kind" aria-label="Kind of locator" bind:value={label}>
          {#each LOCATOR_LABELS as l (l)}<option value={l}>{locatorName(l)}</option>{/each}
        </Select>
        <Input aria-label="Locator" bind:value />
      </span>
    </label>
  </div>
  <label
    ><span class="small-label">In my own words</span><Textarea rows="2" bind:value={ownWords}
    ></Textarea></label
  >
  {#if ownWords.trim()}
    <div class="meter" class:close={taken.tooClose}>
      <span class="bar"
        ><span style="width: {Math.min(100, (taken.run / (RUN_LIMIT * 2)) * 100)}%"></span></span
      >
      {taken.tooClose ? `${taken.run} words in a row are the author’s` : 'In your own words'}
    </div>
  {/if}
  {#if already}<p class="pencil-blue already">You have kept these words already: {already}</p>{/if}
  <div class="line acts">
    <Button look="main" disabled={busy} onclick={keep}>{kept ? 'Save' : 'Keep passage'}</Button>
    <Button onclick={onleave}>{kept ? 'Close' : 'Leave it'}</Button>
    {#if onbin}<Button look="quiet" onclick={onbin}>Put in the bin</Button>{/if}
    <label class="private" title="Never shown to others the library is shared with"
      ><Checkbox bind:checked={isPrivate} /> Only for me</label
    >
    <span class="small-label">Enter · Esc</span>
  </div>
</div>

<style>
  .sheet {
    display: grid;
    gap: 9px;
    width: min(456px, calc(100vw - 24px));
    padding: 12px 14px;
    border: 1px solid var(--edge);
    border-radius: 10px;
    background: var(--page);
    box-shadow: 0 10px 34px rgb(0 0 0 / 20%);
  }
  .kinds {
    display: flex;
    width: fit-content;
    border: 1px solid var(--edge);
    border-radius: 6px;
    overflow: hidden;
  }
  .kinds :global(button) {
    padding: 4px 10px;
    color: var(--ink-2);
    font-size: 13px;
    font-weight: 600;
    cursor: pointer;
  }
  .kinds :global(button + button) {
    border-left: 1px solid var(--rule);
  }
  .kinds :global(button[aria-pressed='true']) {
    background: var(--thread);
    color: var(--on-thread);
  }
  .tints {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  .tints :global(button) {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    padding: 2px 8px;
    border: 1px solid var(--rule);
    border-radius: 6px;
    font-size: 12px;
    font-weight: 550;
    cursor: pointer;
  }
  .tints :global(button[aria-pressed='true']) {
    border-color: var(--thread);
    box-shadow: 0 0 0 1px var(--thread);
  }
  .line {
    display: flex;
    gap: 8px;
  }
  .grow {
    flex: 1;
  }
  .locator {
    width: 186px;
  }
  .locator :global(.label-kind) {
    flex: none;
    width: 108px;
  }
  .locator :global(select) {
    padding-right: 22px;
    font-size: 12.5px;
  }
  .meter {
    display: flex;
    align-items: center;
    gap: 10px;
    color: var(--green-pencil);
    font-size: 12px;
    font-weight: 600;
  }
  .meter.close {
    color: var(--red-pencil);
  }
  .bar {
    flex: 1;
    height: 4px;
    border-radius: 2px;
    background: var(--rule);
  }
  .bar span {
    display: block;
    height: 100%;
    border-radius: 2px;
    background: currentColor;
  }
  .acts {
    align-items: center;
  }
  .already {
    font-size: 12.5px;
    font-weight: 600;
  }
  .private {
    display: flex;
    flex: 1;
    gap: 5px;
    align-items: center;
    color: var(--ink-2);
    font-size: 12.5px;
    white-space: nowrap;
  }
</style>
