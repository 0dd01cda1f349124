<script lang="ts">
  import { onMount } from 'svelte';
  import {
    KIND_LABELS,
    LOCATOR_LABELS,
    overlap,
    PASSAGE_KINDS,
    RUN_LIMIT,
    TINTS,
    type Locator,
    type PassageKind,
    type Tint,
  } from '$lib/core/passages';
  import type { PassageWords } from '$lib/server/services/passages';
  import TintSwatch from './TintSwatch.svelte';

  interface Props {
    exact: string;
    said: PassageWords;
    /** Whether this is a passage already kept. */
    kept: boolean;
    onkeep: (said: PassageWords) => void;
    onleave: () => void;
    onbin?: () => void;
  }
  let { exact, said, kept, onkeep, onleave, onbin }: Props = $props();

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

  function keep() {
    onkeep({
      kind,
      tint,
      gist: gist.trim(),
      ownWords: ownWords.trim(),
      locator: value.trim() ? { label, value: value.trim() } : null,
      visibility: isPrivate ? 'private' : 'library',
    });
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
      keep();
    else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) keep();
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
    {#each PASSAGE_KINDS as k (k)}<button aria-pressed={kind === k} onclick={() => (kind = k)}
        >{KIND_LABELS[k]}</button
      >{/each}
  </div>
  <div class="tints" role="group" aria-label="Tint">
    {#each TINTS as t, i (t)}<button aria-pressed={tint === t} title="Alt+{i + 1}" onclick={() => (tint = t)}
        ><TintSwatch tint={t} /> {t.charAt(0).toUpperCase() + t.slice(1)}</button
      >{/each}
  </div>
  <div class="line">
    <label class="grow"
      ><span class="small-label">Gist</span><input
        class="field"
        bind:this={first}
        bind:value={gist}
        placeholder="Its point, in one line"
      /></label
    >
    <label class="locator">
      <span class="small-label">Place in the work</span>
      <span class="flex gap-1">
        <select class="field" aria-label="Kind of locator" bind:value={label}>
          {#each LOCATOR_LABELS as l (l)}<option value={l}
              >{l.replace('-locator', '').replace('-', ' ')}</option
            >{/each}
        </select>
        <input class="field" aria-label="Locator" bind:value />
      </span>
    </label>
  </div>
  <label
    ><span class="small-label">In my own words</span><textarea class="field" rows="2" bind:value={ownWords}
    ></textarea></label
  >
  {#if ownWords.trim()}
    <div class="meter" class:close={taken.tooClose}>
      <span class="bar"
        ><span style="width: {Math.min(100, (taken.run / (RUN_LIMIT * 2)) * 100)}%"></span></span
      >
      {taken.tooClose ? `${taken.run} words in a row are the author’s` : 'In your own words'}
    </div>
  {/if}
  <div class="line acts">
    <button class="btn main" onclick={keep}>{kept ? 'Save' : 'Keep passage'}</button>
    <button class="btn" onclick={onleave}>{kept ? 'Close' : 'Leave it'}</button>
    {#if onbin}<button class="btn quiet" onclick={onbin}>Put in the bin</button>{/if}
    <label class="private" title="Never shown to others the library is shared with"
      ><input type="checkbox" bind:checked={isPrivate} /> Only for me</label
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
  .kinds button {
    padding: 4px 10px;
    color: var(--ink-2);
    font-size: 13px;
    font-weight: 600;
    cursor: pointer;
  }
  .kinds button + button {
    border-left: 1px solid var(--rule);
  }
  .kinds button[aria-pressed='true'] {
    background: var(--thread);
    color: var(--on-thread);
  }
  .tints {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  .tints button {
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
  .tints button[aria-pressed='true'] {
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
  .locator select {
    width: 104px;
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
