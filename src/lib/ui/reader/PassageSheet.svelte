<script lang="ts">
  import { Button, Input, Select, Textarea } from '../kit';
  import { onMount, untrack } from 'svelte';
  import {
    KIND_LABELS,
    LOCATOR_LABELS,
    locatorName,
    TINTS,
    WORDS_KINDS,
    type Locator,
    type PassageKind,
    type Tint,
  } from '$lib/core/passages';
  import type { PassageWords } from '$lib/server/passages';
  import WhoSees from '../people/WhoSees.svelte';
  import TagsField from '../source/TagsField.svelte';
  import FigurePart from './FigurePart.svelte';
  import type { FigureSaid } from './figuring.svelte';
  import OwnWords from './OwnWords.svelte';
  import TintSwatch from './TintSwatch.svelte';
  import Wording from './Wording.svelte';

  interface Props {
    /** The words of the work: as they stand in the document, or as they were typed from print. */
    exact: string;
    said: PassageWords;
    /** Where the words are: at a place in the document, typed by hand from print or from what is heard, a figure’s caption, or nowhere since it is on the whole of it. */
    of?: 'place' | 'print' | 'whole' | 'figure' | 'sound';
    /** The figure, where it is one; `address` gives where a place is shown as a picture. */
    figure?: { said: FigureSaid; address: (place: FigureSaid['place']) => string } | undefined;
    /** Whether this is a passage already kept. */
    kept: boolean;
    /** It is of who looks: they say who sees it. */
    mine?: boolean;
    /** These words are a passage already; what that one says. */
    already?: string | undefined;
    /** Tags passages have already. */
    offeredTags?: string[];
    /** Words that were selected since, which can become its place. */
    elsewhere?: string | undefined;
    onmove?: () => void;
    /** Adds other words of the document to these, with an omission between; whether they are waited for. */
    onadd?: () => void;
    adding?: boolean;
    covered?: boolean;
    oncover?: (covered: boolean) => void;
    onkeep: (said: PassageWords, exact: string, figure?: FigureSaid) => Promise<void>;
    /** Told of what is typed, before it is kept. */
    ontype?: (said: PassageWords, exact: string, figure?: FigureSaid) => void;
    onleave: () => void;
    onbin?: () => void;
  }
  let {
    exact,
    said,
    of = 'place',
    figure,
    kept,
    mine = true,
    already,
    offeredTags = [],
    elsewhere,
    onmove,
    onadd,
    adding = false,
    covered = false,
    oncover,
    onkeep,
    ontype,
    onleave,
    onbin,
  }: Props = $props();

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
  let sees = $state({ visibility: said.visibility, shownTo: said.shownTo });
  // svelte-ignore state_referenced_locally
  let wording = $state<string | null>(said.wording);
  // svelte-ignore state_referenced_locally
  let tags = $state(said.tags);
  // svelte-ignore state_referenced_locally
  let typed = $state(exact);
  // svelte-ignore state_referenced_locally
  let cut = $state(figure?.said);
  let wide = $state(false);
  const id = $props.id();
  let first: HTMLInputElement | undefined = $state();
  let printed: HTMLTextAreaElement | undefined = $state();
  const typesWords = $derived(of === 'print' || of === 'sound');
  const original = $derived(typesWords || of === 'figure' ? typed : exact);

  // Scrolling is the reader's business: the sheet may not have its place yet.
  onMount(() => (printed ?? first)?.focus({ preventScroll: true }));

  const words = (): PassageWords => ({
    kind,
    tint,
    gist: gist.trim(),
    ownWords: ownWords.trim(),
    locator: value.trim() ? { label, value: value.trim() } : null,
    ...$state.snapshot(sees),
    wording: wording === null || wording.trim() === original.trim() ? null : wording.trim(),
    tags,
  });
  /** The figure as it is said now; words over it that were emptied are none. */
  function figureSaid(): FigureSaid | undefined {
    const said = cut && $state.snapshot(cut);
    return said && { ...said, drawing: said.drawing.filter((s) => s.shape !== 'words' || s.text.trim()) };
  }
  $effect(() => {
    const now = [words(), typed, figureSaid()] as const;
    // Who is told may look at what waits, which telling changes.
    untrack(() => ontype?.(...now));
  });

  // Pressed twice is meant once.
  let busy = $state(false);
  async function keep() {
    if (busy) return;
    busy = true;
    await onkeep(words(), typed, figureSaid());
    busy = false;
  }

  /** The letter each kind is chosen by, with Alt: the first of its name. */
  const LETTERS = new Map(WORDS_KINDS.map((k) => [k[0], k]));

  function onkeydown(event: KeyboardEvent) {
    event.stopPropagation();
    const target = event.target as HTMLElement;
    const chosen =
      event.altKey && of !== 'figure' ? LETTERS.get(event.code.replace(/^Key/, '').toLowerCase()) : undefined;
    if (event.key === 'Escape') onleave();
    else if (
      event.key === 'Enter' &&
      !event.shiftKey &&
      !event.defaultPrevented &&
      target instanceof HTMLInputElement
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
    else if (chosen) kind = chosen;
    else return;
    event.preventDefault();
  }
</script>

<div
  class="sheet"
  class:wide
  role="dialog"
  tabindex="-1"
  aria-label={of === 'figure' ? (kept ? 'Figure' : 'New figure') : kept ? 'Passage' : 'New passage'}
  {onkeydown}
>
  {#if cut && figure}
    <FigurePart
      bind:figure={cut}
      bind:caption={typed}
      address={figure.address}
      {tint}
      {wide}
      onwide={(yes) => (wide = yes)}
    />
  {:else}<div class="kinds" role="group" aria-label="Kind">
      {#each WORDS_KINDS as k (k)}<Button
          look="bare"
          aria-pressed={kind === k}
          title="Alt+{k[0]!.toUpperCase()}"
          onclick={() => (kind = k)}>{KIND_LABELS[k]}</Button
        >{/each}
    </div>{/if}
  <div class="tints" role="group" aria-label="Tint">
    {#each TINTS as t, i (t)}<Button
        look="bare"
        aria-pressed={tint === t}
        title="Alt+{i + 1}"
        onclick={() => (tint = t)}><TintSwatch tint={t} /> {t.charAt(0).toUpperCase() + t.slice(1)}</Button
      >{/each}
  </div>
  {#if typesWords}
    <label
      ><span class="small-label">{of === 'sound' ? 'What is said' : 'Words of the work'}</span><Textarea
        rows="3"
        class="serif"
        bind:element={printed}
        bind:value={typed}
        placeholder={of === 'sound'
          ? 'Word for word; leave it empty for a word on the moment'
          : 'As they stand in print; leave it empty for a word on the whole of it'}
      ></Textarea></label
    >
  {/if}
  {#if elsewhere}
    <p class="elsewhere">
      <span
        >Selected now: <q class="serif">{elsewhere.slice(0, 90)}{elsewhere.length > 90 ? '…' : ''}</q></span
      >
      <Button small onclick={onmove}>Set the passage there</Button>
    </p>
  {/if}
  <div class="line">
    <label class="grow"
      ><span class="small-label">Gist</span><Input
        bind:element={first}
        bind:value={gist}
        placeholder="Its point, in one line"
      /></label
    >
    <div class="locator" role="group" aria-label="Place in the work">
      <span class="small-label">Place in the work</span>
      <span class="flex gap-1">
        <Select class="label-kind" aria-label="Kind of locator" bind:value={label}>
          {#each LOCATOR_LABELS as l (l)}<option value={l}>{locatorName(l)}</option>{/each}
        </Select>
        <Input
          aria-label="Locator"
          aria-describedby={of !== 'whole' && !value.trim() ? `${id}-asked` : undefined}
          class={[of !== 'whole' && !value.trim() && 'asked']}
          bind:value
        />
      </span>
    </div>
  </div>
  {#if of !== 'whole' && !value.trim()}<p id="{id}-asked" class="pencil-red asking">
      {of === 'sound'
        ? 'At which minute is it?'
        : of === 'print' || of === 'figure'
          ? 'On which page does it stand?'
          : 'The document does not say its page. On which one does it stand?'}
    </p>{/if}
  {#if onadd}<div class="line adds">
      <Button small look="quiet" aria-pressed={adding} onclick={onadd}>Add other words […]</Button>
      {#if adding}<span class="small-label waits"
          >Select them in the document; what is between is left out.</span
        >{/if}
    </div>{/if}
  {#if kind === 'quotation' && original.trim()}<Wording exact={original} bind:wording />{/if}
  <OwnWords {original} bind:value={ownWords} {covered} oncover={of === 'place' ? oncover : undefined} />
  <TagsField {tags} offered={offeredTags} onchange={(next) => (tags = next)} />
  {#if already}<p class="pencil-blue already">You have kept these words already: {already}</p>{/if}
  <div class="line acts">
    <Button look="main" disabled={busy} onclick={keep}
      >{kept ? 'Save' : of === 'figure' ? 'Keep figure' : 'Keep passage'}</Button
    >
    <Button onclick={onleave}>{kept ? 'Close' : 'Leave it'}</Button>
    {#if onbin}<Button look="quiet" onclick={onbin}>Put in the bin</Button>{/if}
    {#if mine}<WhoSees bind:visibility={sees.visibility} bind:shownTo={sees.shownTo} />{:else}<span
        class="flex-1"
      ></span>{/if}
    <span class="small-label">Enter · Esc</span>
  </div>
</div>

<style>
  .sheet {
    display: grid;
    gap: 9px;
    width: min(500px, calc(100vw - 24px));
    padding: 12px 14px;
    border: 1px solid var(--edge);
    border-radius: 10px;
    background: var(--page);
    box-shadow: 0 10px 34px rgb(0 0 0 / 20%);
  }
  .sheet.wide {
    width: min(860px, calc(100vw - 24px));
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
  .locator :global(.asked) {
    border-color: var(--red-pencil);
  }
  .asking {
    margin-top: -5px;
    font-size: 12px;
    text-align: right;
  }
  .elsewhere {
    display: flex;
    gap: 8px;
    align-items: center;
    justify-content: space-between;
    padding: 6px 8px;
    border-radius: 6px;
    background: var(--blue-soft);
    font-size: 12.5px;
  }
  .adds {
    margin: -4px 0 -8px -8px;
  }
  .acts,
  .waits {
    align-items: center;
    align-self: center;
  }
  .already {
    font-size: 12.5px;
    font-weight: 600;
  }
</style>
