<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import { CloseOutline } from 'flowbite-svelte-icons';
  import { typedPlace, typedWork, type CitedWork } from '$lib/core/drafting';
  import { LOCATOR_LABELS, locatorName, locatorText, type Locator } from '$lib/core/passages';
  import type { FoundWork } from '$lib/server/drafts';
  import { call, debounce } from '../frame/client';
  import { Button, Checkbox, Input, Select } from '../kit';
  import FieldBox, { type FieldPlace } from './FieldBox.svelte';

  interface Cited {
    works: CitedWork[];
    named: boolean;
  }
  interface Props {
    projectId: string;
    /** The citation that is there, to be changed. */
    given?: Cited | undefined;
    /** What works are called. */
    labels: ReadonlyMap<string, string>;
    at: FieldPlace;
    onkeep: (cited: Cited) => void;
    onleave: () => void;
  }
  /**
   * A small field in which a citation is typed: words of a work, Enter, its place, and so on; Enter on nothing puts it into the
   * text. Everything by keys, nothing that has to be reached for.
   */
  let { projectId, given, labels, at: spot, onkeep, onleave }: Props = $props();

  let works = $state<CitedWork[]>(
    untrack(() => structuredClone($state.snapshot(given?.works) ?? []) as CitedWork[]),
  );
  let named = $state(untrack(() => given?.named ?? false));
  let names = $state<Record<string, string>>({});
  let typed = $state('');
  let found = $state.raw<FoundWork[]>([]);
  let total = $state(0);
  let at = $state(0);
  /** What was last looked for: nothing found is said of that alone. */
  let looked = $state('');
  /** The work whose details are open. */
  let open = $state<number>();
  let entry: HTMLInputElement | undefined = $state();
  let field: HTMLElement | undefined = $state();
  const nameOf = (id: string) => names[id] ?? labels.get(id) ?? 'a source that is gone';
  const last = $derived(works.at(-1));
  /** Behind a work one types its place, until a semicolon or words that are none. */
  let placing = $state(untrack(() => works.length > 0));
  const asked = $derived(typedWork(typed));
  const place = $derived(typedPlace(typed));
  /** What is typed behind a work is its place where it begins with one. */
  const isPlace = $derived(placing && typed.trim() !== '' && Boolean(place.locator));

  let turn = 0;
  const search = debounce(async () => {
    const mine = ++turn;
    const { wanted } = typedWork(typed);
    if (!wanted || isPlace) return void ([found, looked] = [[], '']);
    try {
      const answer = await call<{ found: FoundWork[]; total: number }>('POST', '/api/drafts/find', {
        words: wanted,
        projectId,
      });
      if (mine !== turn) return;
      [found, total, at, looked] = [answer.found, answer.total, 0, wanted];
    } catch {
      if (mine === turn) [found, looked] = [[], ''];
    }
  }, 90);

  const locatorOf = (locator: Locator | null | undefined) =>
    locator ? { label: locator.label, locator: locator.value } : {};
  function take(work: FoundWork) {
    const { prefix, withoutAuthor } = typedWork(typed);
    names[work.id] = work.label;
    works.push({
      id: work.id,
      ...(prefix ? { prefix } : {}),
      ...(withoutAuthor ? { withoutAuthor } : {}),
      ...locatorOf(work.passage?.locator),
    });
    [typed, found, placing, looked] = ['', [], true, ''];
    turn++;
    entry?.focus();
  }
  /** What was typed behind the last work becomes its place and the words after it. */
  function settle() {
    if (!last || !typed.trim() || !placing) return;
    Object.assign(last, typedPlace(typed));
    typed = '';
  }
  function keep() {
    if (works.length === 0) return onleave();
    onkeep({ works: $state.snapshot(works) as CitedWork[], named });
  }
  function onkey(event: KeyboardEvent) {
    const { key } = event;
    const onInput = event.target === entry;
    if (key === 'Escape') {
      event.preventDefault();
      event.stopPropagation();
      return onleave();
    }
    if (key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      settle();
      return keep();
    }
    if (!onInput) {
      if (key === 'Enter' && (event.target as HTMLElement).matches('.details input')) {
        event.preventDefault();
        open = undefined;
        entry?.focus();
      }
      return;
    }
    if ((key === 'ArrowDown' || key === 'ArrowUp') && found.length) {
      event.preventDefault();
      at = (at + (key === 'ArrowDown' ? 1 : -1) + found.length) % found.length;
    } else if (key === 'Enter') {
      event.preventDefault();
      if (isPlace) settle();
      else if (typed.trim() && found[at]) take(found[at]!);
      else if (!typed.trim()) keep();
      else search();
    } else if (key === ';' && placing && works.length) {
      event.preventDefault();
      if (isPlace || (typed.trim() && !found.length)) settle();
      placing = false;
    } else if (key === 'Backspace' && typed === '' && works.length) {
      event.preventDefault();
      const { label, locator, suffix } = last!;
      // One step back at a time: the place first, and then the work.
      if (locator || suffix) {
        works[works.length - 1] = { id: last!.id, ...(last!.prefix ? { prefix: last!.prefix } : {}), ...(last!.withoutAuthor ? { withoutAuthor: true } : {}) }; // prettier-ignore
        typed = `${locator ? locatorText({ label: (label ?? 'page') as Locator['label'], value: locator }) : ''}${suffix ? `, ${suffix}` : ''}`;
        placing = true;
      } else {
        works.pop();
        placing = works.length > 0;
      }
    }
  }
  const wordsOf = (work: CitedWork) =>
    [
      work.prefix,
      work.withoutAuthor ? `– ${nameOf(work.id)}` : nameOf(work.id),
      work.locator && locatorText({ label: (work.label ?? 'page') as Locator['label'], value: work.locator }),
      work.suffix,
    ]
      .filter(Boolean)
      .join(' ');
  async function details(i: number) {
    open = open === i ? undefined : i;
    await tick();
    if (open !== undefined) field?.querySelector<HTMLElement>('.details input')?.focus();
  }
  onMount(() => entry?.focus());
</script>

<FieldBox name="cite" label="Cite" at={spot} bind:element={field} onkeydown={onkey}>
  {#if works.length}
    <ul class="works" aria-label="Works cited">
      {#each works as work, i (i)}
        <li class:unknown={!names[work.id] && !labels.has(work.id)}>
          <Button small look="quiet" title="Words before and after, its author" onclick={() => details(i)}
            >{wordsOf(work)}</Button
          >
          <Button
            small
            look="quiet"
            aria-label="Take out {nameOf(work.id)}"
            onclick={() => {
              works.splice(i, 1);
              open = undefined;
              placing = works.length > 0;
            }}><CloseOutline size="xs" /></Button
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if open !== undefined && works[open]}
    {@const work = works[open]!}
    <div class="details" role="group" aria-label="Details of {nameOf(work.id)}">
      <Input aria-label="Words before" placeholder="see" bind:value={work.prefix} />
      <Select
        aria-label="Kind of place"
        value={work.label ?? 'page'}
        onchange={(e) => (work.label = e.currentTarget.value)}
      >
        {#each LOCATOR_LABELS as label (label)}<option value={label}>{locatorName(label)}</option>{/each}
      </Select>
      <Input aria-label="Place" placeholder="12–14" bind:value={work.locator} />
      <Input aria-label="Words after" placeholder="emphasis added" bind:value={work.suffix} />
      <label
        ><Checkbox
          checked={work.withoutAuthor ?? false}
          disabled={named && open === 0}
          onchange={(e) => (work.withoutAuthor = e.currentTarget.checked)}
        /> without its author</label
      >
    </div>
  {/if}
  <Input
    bind:element={entry}
    role="combobox"
    aria-expanded={found.length > 0}
    aria-controls="cite-found"
    aria-activedescendant={found.length ? `cite-found-${at}` : undefined}
    aria-label="Cite: words of a work, or its place"
    placeholder={works.length
      ? placing
        ? 'Its place (12-14, ch. 3), or “;” and another work; Enter puts it in'
        : 'Another work'
      : 'Author, title, citekey or words you quoted'}
    bind:value={typed}
    oninput={search}
  />
  {#if found.length}
    <ul class="found" id="cite-found" role="listbox" aria-label="Works that fit">
      {#each found as work, i (`${work.id} ${work.passage?.id ?? ''}`)}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <li
          id="cite-found-{i}"
          role="option"
          aria-selected={i === at}
          class:current={i === at}
          onclick={() => take(work)}
        >
          <b>{work.label}</b>
          {#if work.passage}
            <span class="serif">“{work.passage.words}”</span>
            <span class="key">{locatorText(work.passage.locator) || 'no place'}</span>
          {:else}
            <span class="serif">{work.title}</span>
            <span class="key">{work.citekey}</span>
          {/if}
        </li>
      {/each}
    </ul>
    {#if total > found.filter((f) => !f.passage).length}
      <p class="small-label">{total.toLocaleString('en')} works fit. Type more to tell them apart.</p>
    {/if}
  {:else if isPlace}
    <p class="small-label">
      Enter: {locatorText({ label: (place.label ?? 'page') as Locator['label'], value: place.locator ?? '' })}
      {place.suffix ?? ''} of {nameOf(last!.id)}
    </p>
  {:else if looked && looked === asked.wanted}
    <p class="none" role="status">
      Nothing in the library fits “{looked}”.
      {#if placing}“;” keeps it as words after the citation.{:else}Capture it first, or type other words.{/if}
    </p>
  {:else if works.length}
    <label class="small-label"
      ><Checkbox bind:checked={named} /> the author of the first stands in the sentence</label
    >
  {/if}
</FieldBox>

<style>
  .works {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  .works li {
    display: flex;
    align-items: center;
    max-width: 100%;
    border-radius: 5px;
    background: var(--thread-soft);
  }
  .works li.unknown {
    background: var(--red-soft);
  }
  .details {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
    align-items: center;
  }
  .found {
    max-height: 260px;
    overflow-y: auto;
  }
  .found li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    padding: 5px 8px;
    border-left: 3px solid transparent;
    cursor: pointer;
  }
  .found li.current {
    border-left-color: var(--thread);
    background: var(--row-chosen);
  }
  .found .serif {
    grid-column: 1;
    grid-row: 2;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .key {
    color: var(--ink-3);
    font-size: 12px;
  }
  .none {
    color: var(--red-pencil);
    font-size: 13px;
  }
</style>
