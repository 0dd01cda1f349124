<script lang="ts">
  import { Button, PageHead, Select } from '$lib/ui/kit';
  import { onMount, tick, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import {
    describe,
    findWords,
    KIND_LABELS,
    locatorText,
    offsetOf,
    type Anchoring,
    type Locator,
    type Selectors,
  } from '$lib/core/passages';
  import type { Passage, PassageWords, Renewal } from '$lib/server/passages';
  import PageFrame from '$lib/ui/reader/PageFrame.svelte';
  import PassageSheet from '$lib/ui/reader/PassageSheet.svelte';
  import { call, COPY_KINDS, debounce } from '$lib/ui/frame/client';
  import { dateLabel } from '$lib/ui/frame/dates';
  import { drafts } from '$lib/ui/frame/drafts';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { drawMarks, placeOf, readText } from '$lib/ui/reader/marking';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();

  let doc: Document | undefined = $state.raw();
  let places = $state.raw(new Map<string, Anchoring>());
  let chosen = $state<string | undefined>();
  type Fresh = { selectors: Selectors; start: number; end: number; place: Locator | undefined };
  let fresh = $state<Fresh | undefined>();
  /** Passages begun here and not kept: what was typed of them waits until they are kept or thrown away. */
  type Begun = Fresh & { said: PassageWords };
  let begun = $state.raw<Begun[]>([]);
  const beginnings = $derived(`passages ${data.copy.id}`);
  $effect(() => {
    begun = drafts.find<Begun[]>(beginnings) ?? [];
  });
  const same = (a: Fresh, b: Fresh) => a.start === b.start && a.end === b.end;
  function setBegun(next: Begun[]) {
    begun = next;
    if (next.length) drafts.keep(beginnings, next);
    else drafts.drop(beginnings);
  }
  /** What is being typed of a new passage, put down so that nothing that comes between takes it away. */
  function typed(said: PassageWords) {
    if (!fresh) return;
    const of = $state.snapshot(fresh) as Fresh;
    const others = untrack(() => begun).filter((b) => !same(b, of));
    setBegun(said.gist || said.ownWords ? [...others, { ...of, said }] : others);
  }
  const throwAway = (of: Fresh) => setBegun(begun.filter((b) => !same(b, of)));
  const wordsOfFresh = () => begun.find((b) => fresh && same(b, fresh))?.said ?? firstWords();
  const waiting = $derived(begun.filter((b) => !fresh || !same(b, fresh)));
  /** Words that were searched for, shown where they stand until something else is chosen. */
  let sought = $state.raw<{ start: number; end: number } | undefined>();
  let editingId = $state<string | undefined>();
  let tops = $state<Record<string, number>>({});
  let sheetTop = $state(0);
  let cards: Record<string, HTMLElement> = {};
  let scroller: HTMLElement | undefined = $state();
  let renewing = $state(false);
  /** The passage whose sheet was last brought into view. */
  let shownSheet: string | undefined;

  const copies = (kind: string) => data.copies.filter((c) => c.kind === kind).length;
  const lost = $derived(
    data.passages.filter((p) => places.get(p.id)?.state === 'lost' || p.anchor === 'lost'),
  );
  const placed = $derived(data.passages.filter((p) => !lost.includes(p)));
  const editing = $derived(data.passages.find((p) => p.id === editingId));

  const topOf = (id: string) => {
    const mark = doc?.querySelector(`mark[data-passage="${id}"]`);
    return mark ? mark.getBoundingClientRect().top : undefined;
  };

  /** Sets each card level with the first line of its passage, below the one before it where they would overlap. */
  function layout() {
    if (!doc) return;
    let free = 12;
    const next: Record<string, number> = {};
    const order = [...placed.map((p) => p.id), ...(fresh ? ['new'] : [])]
      .map((id) => ({ id, top: topOf(id) ?? 0 }))
      .sort((a, b) => a.top - b.top);
    for (const { id, top } of order) {
      next[id] = Math.max(top - 4, free);
      free = next[id] + (cards[id]?.offsetHeight ?? 70) + 10;
    }
    tops = next;
    const open = editingId ?? (fresh ? 'new' : undefined);
    if (!open) shownSheet = undefined;
    else {
      const marks = [...doc.querySelectorAll(`mark[data-passage="${open}"]`)];
      const bottom = marks.length
        ? Math.max(...marks.map((m) => m.getBoundingClientRect().bottom))
        : (tops[open] ?? 0) + 40;
      sheetTop = bottom + 12;
      if (shownSheet !== open) {
        shownSheet = open;
        void tick().then(() => document.querySelector('.place')?.scrollIntoView({ block: 'nearest' }));
      }
    }
  }

  function draw() {
    if (!doc) return;
    places = drawMarks(doc, data.passages, fresh ?? sought);
    void tick().then(layout);
  }

  $effect(() => {
    void [data.passages, fresh, sought, doc];
    untrack(draw);
  });
  $effect(() => {
    for (const mark of doc?.querySelectorAll('mark[data-passage]') ?? [])
      mark.classList.toggle('chosen', (mark as HTMLElement).dataset.passage === chosen);
  });
  $effect(() => {
    void [editingId, placed];
    void tick().then(layout);
  });

  /** Goes to a passage: its line comes into view and its card is chosen. */
  function goTo(id: string) {
    chosen = id;
    show(id);
  }
  function show(id: string) {
    const top = topOf(id);
    if (top !== undefined && scroller) scroller.scrollTo({ top: Math.max(0, top - 160) });
  }

  function ready(loaded: Document) {
    doc = loaded;
    const words = page.url.searchParams.get('words');
    sought = words ? findWords(readText(loaded).text, words) : undefined;
    draw();
    const wanted = page.url.searchParams.get('passage');
    void tick().then(() => (wanted ? goTo(wanted) : sought && show('new')));
    loaded.addEventListener('mouseup', () => setTimeout(selected, 0));
    // A finger moves the ends of a selection by their handles; it is done when they have come to rest.
    let touched = false;
    loaded.addEventListener('touchstart', () => (touched = true), { passive: true });
    const rested = debounce(selected, 700);
    loaded.addEventListener('selectionchange', () => touched && rested());
    loaded.addEventListener('keyup', (e) => {
      if (e.key === 'Shift' || e.key.startsWith('Arrow')) selected();
      if (e.key === 'Escape') leave();
    });
    loaded.addEventListener('click', (e) => {
      const mark = (e.target as Element).closest<HTMLElement>('mark[data-passage]');
      if (mark && loaded.getSelection()?.isCollapsed !== false && mark.dataset.passage !== 'new')
        chosen = mark.dataset.passage;
    });
  }

  function selected() {
    const selection = doc?.getSelection();
    if (!doc || !selection || selection.isCollapsed || editingId) return;
    const range = selection.getRangeAt(0);
    const { text, segments } = readText(doc);
    const start = offsetOf(segments, range.startContainer, range.startOffset);
    const end = offsetOf(segments, range.endContainer, range.endOffset);
    if (start === undefined || end === undefined || text.slice(start, end).trim() === '') return;
    const selectors = describe(text, Math.min(start, end), Math.max(start, end));
    const exactStart = text.indexOf(selectors.quote.exact, Math.min(start, end));
    fresh = {
      selectors,
      start: exactStart,
      end: exactStart + selectors.quote.exact.length,
      place: placeOf(range.startContainer),
    };
    selection.removeAllRanges();
  }

  function leave() {
    fresh = undefined;
    sought = undefined;
    editingId = undefined;
  }

  let lastTint: PassageWords['tint'] = 'claim';
  const firstWords = (): PassageWords => ({
    kind: 'quotation',
    tint: lastTint,
    gist: '',
    ownWords: '',
    locator: fresh?.place ?? null,
    visibility: 'library',
  });
  const wordsOf = ({ kind, tint, gist, ownWords, locator, visibility }: Passage): PassageWords => ({
    kind,
    tint,
    gist,
    ownWords,
    locator,
    visibility,
  });

  async function keep(said: PassageWords) {
    const made = await attempt(() =>
      call<Passage>('POST', '/api/passages', { ...said, copyId: data.copy.id, selectors: fresh!.selectors }),
    );
    if (!made) return;
    lastTint = said.tint;
    if (fresh) throwAway(fresh);
    fresh = undefined;
    await renewed();
    chosen = made.id;
  }

  /** The passage that has the very words selected, if there is one. */
  const alreadyKept = $derived.by(() => {
    const exact = fresh?.selectors.quote.exact;
    const { start = -1 } = fresh?.selectors.position ?? {};
    const one = data.passages.find(
      (p) => exact !== undefined && p.exact === exact && p.selectors?.position.start === start,
    );
    return one && `${KIND_LABELS[one.kind].toLowerCase()}${one.gist ? `, “${one.gist}”` : ''}.`;
  });

  function draftOf(passage: Passage, said: PassageWords) {
    if (JSON.stringify(said) === JSON.stringify(wordsOf(passage))) drafts.drop(`passage ${passage.id}`);
    else drafts.keep(`passage ${passage.id}`, said);
  }

  async function save(said: PassageWords) {
    const { id, revision } = editing!;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/passages/${id}`, { base: revision, said }),
    );
    if (!made) return;
    drafts.drop(`passage ${id}`);
    editingId = undefined;
    done('Saved.', [made.revisionId]);
    await renewed();
  }

  async function bin(id: string) {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/passages/${id}/bin`, { binned: true }),
    );
    if (!made) return;
    leave();
    done('The passage is in the bin.', [made.revisionId]);
    await renewed();
  }

  async function renew() {
    renewing = true;
    const renewal = await attempt(() => call<Renewal>('POST', `/api/copies/${data.copy.id}/renew`, {}));
    renewing = false;
    if (!renewal) return;
    if (!renewal.changed) return done('The page has not changed.');
    done(
      `The page has changed. ${renewal.found + renewal.moved} of ${renewal.found + renewal.moved + renewal.lost} passages were found in it again${renewal.lost ? `; ${renewal.lost} stay on the old copy, marked as lost` : ''}.`,
    );
    await goto(`/copies/${renewal.copyId}`);
  }

  /** Cards are set anew when one of them grows or shrinks. */
  function sized(node: HTMLElement) {
    const watch = new ResizeObserver(() => layout());
    watch.observe(node);
    return { destroy: () => watch.disconnect() };
  }

  onMount(() => {
    const again = () => layout();
    window.addEventListener('resize', again);
    return () => window.removeEventListener('resize', again);
  });
</script>

<svelte:head><title>{data.source.label}, copy · Retexa</title></svelte:head>
<svelte:window onkeydown={(e) => e.key === 'Escape' && leave()} />

<PageHead>
  <a class="small-label" href="/sources">‹ Sources</a>
  <h1 class="serif">{data.source.label}</h1>
  <span class="sub what" title={data.source.title}
    >{COPY_KINDS[data.copy.kind]}, captured {dateLabel(data.copy.captured)}</span
  >
  <span class="flex-1"></span>
  {#if data.copies.length > 1}
    <Select
      look="chip"
      aria-label="Copy"
      value={data.copy.id}
      onchange={(e) => goto(`/copies/${e.currentTarget.value}`)}
    >
      {#each data.copies as copy, i (copy.id)}<option value={copy.id}
          >{COPY_KINDS[copy.kind]}, {dateLabel(copy.captured)}{copies(copy.kind) > 1
            ? `, no. ${data.copies.length - i}`
            : ''}</option
        >{/each}
    </Select>
  {/if}
  {#if data.copy.kind !== 'page'}<Button look="chip" href="/copies/{data.copy.id}/file" target="_blank"
      >Open the file</Button
    >{/if}
  {#if data.copy.address}
    <Button look="chip" href={data.copy.address} target="_blank" rel="noreferrer">On the web</Button>
    <Button look="chip" onclick={renew} disabled={renewing}>{renewing ? 'Looking…' : 'Look again'}</Button>
  {/if}
  <Button look="chip" class="border-thread bg-thread-soft" href="/sources/{data.source.id}">Record</Button>
</PageHead>

{#if data.copy.note}<p class="of-copy small-label">{data.copy.note}</p>{/if}
{#if lost.length}
  <section class="lost" aria-label="Lost passages">
    <strong class="pencil-red"
      >{lost.length === 1 ? 'One passage is' : `${lost.length} passages are`} no longer in the page as it is now.</strong
    >
    {#each lost as passage (passage.id)}
      <p>
        <q class="serif">{passage.exact}</q>
        <Button
          small
          onclick={() => {
            editingId = passage.id;
            goTo(passage.id);
          }}>Edit</Button
        >
      </p>
    {/each}
  </section>
{/if}

<div class="reader" bind:this={scroller}>
  <div class="text">
    {#key data.copy.id}<PageFrame
        copyId={data.copy.id}
        title={data.copy.title || data.source.title}
        onready={ready}
        onlayout={layout}
      />{/key}
    {#if fresh}
      {#key fresh}
        <div class="place" style="top: {sheetTop}px">
          <PassageSheet
            exact={fresh.selectors.quote.exact}
            said={wordsOfFresh()}
            kept={false}
            already={alreadyKept}
            ontype={typed}
            onkeep={keep}
            onleave={leave}
          />
        </div>
      {/key}
    {:else if editing}
      {#key editing.id}
        <div class="place" style="top: {sheetTop}px">
          <PassageSheet
            exact={editing.exact}
            said={drafts.find<PassageWords>(`passage ${editing.id}`) ?? wordsOf(editing)}
            kept
            ontype={(said) => draftOf(editing!, said)}
            onkeep={save}
            onleave={leave}
            onbin={() => bin(editing!.id)}
          />
        </div>
      {/key}
    {/if}
  </div>
  <aside class="margin" aria-label="Passages">
    {#if data.passages.length === 0 && !fresh}
      <p class="hint">
        Select a sentence in the text to keep it as a passage. It is marked there and stands here, level with
        its line.
      </p>
    {/if}
    {#each waiting as begin (begin.start)}
      <div class="begun">
        <span class="small-label">Begun and not kept</span>
        <q class="serif">{begin.selectors.quote.exact.slice(0, 90)}</q>
        <span class="flex gap-2">
          <Button small onclick={() => ([fresh, editingId] = [begin, undefined])}>Go on with it</Button>
          <Button small look="quiet" onclick={() => throwAway(begin)}>Throw away</Button>
        </span>
      </div>
    {/each}
    {#each placed as passage (passage.id)}
      <article
        bind:this={cards[passage.id]}
        use:sized
        class="card"
        class:chosen={chosen === passage.id}
        style="top: {tops[passage.id] ?? 0}px; --tint: var(--tint-{passage.tint})"
        data-card={passage.id}
      >
        <Button
          look="bare"
          class="whole"
          onclick={() => goTo(passage.id)}
          aria-label="Show in the text: {passage.gist || passage.exact.slice(0, 60)}"
        ></Button>
        <p class="small-label top">
          <span>{[KIND_LABELS[passage.kind], locatorText(passage.locator)].filter(Boolean).join(' · ')}</span
          ><span>{passage.tint}{passage.visibility === 'private' ? ' · only for me' : ''}</span>
        </p>
        {#if passage.gist}<p class="gist">{passage.gist}</p>{:else}<p class="serif short">
            {passage.exact.slice(0, 110)}{passage.exact.length > 110 ? '…' : ''}
          </p>{/if}
        {#if passage.ownWords}<p class="serif own">{passage.ownWords}</p>{/if}
        {#if places.get(passage.id)?.state === 'moved' || passage.anchor === 'moved'}<p
            class="pencil-blue small"
          >
            Moved with the text
          </p>{/if}
        {#if chosen === passage.id}<Button
            small
            class="edit"
            onclick={() => {
              fresh = undefined;
              editingId = passage.id;
            }}>Edit</Button
          >{/if}
      </article>
    {/each}
    {#if fresh}
      <div class="card new" bind:this={cards.new} use:sized style="top: {tops.new ?? 0}px">
        <p class="small-label">New passage{fresh.place ? `, ${locatorText(fresh.place)}` : ''}</p>
        <p>level with the selected lines</p>
      </div>
    {/if}
  </aside>
</div>

<style>
  .what {
    max-width: 36ch;
    overflow: hidden;
    font-size: 13px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  h1 {
    font-size: 17px;
  }
  .reader {
    position: relative;
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 348px;
    min-height: 0;
    overflow: auto;
  }
  .text {
    position: relative;
    border-right: 1px solid var(--margin-rule);
  }
  .margin {
    position: relative;
    background: var(--side);
  }
  .place {
    position: absolute;
    z-index: 45;
    left: 50%;
    padding-bottom: 40px;
    transform: translateX(-50%);
  }
  .card {
    position: absolute;
    right: 14px;
    left: 14px;
    padding: 8px 12px 9px;
    border: 1px solid var(--rule);
    border-left: 4px solid var(--tint);
    border-radius: 7px;
    background: var(--page);
  }
  .card.chosen {
    border-color: var(--thread);
    border-left-color: var(--tint);
    box-shadow: 0 2px 10px rgb(0 0 0 / 10%);
  }
  .card :global(.whole) {
    position: absolute;
    inset: 0;
    border-radius: 7px;
    cursor: pointer;
  }
  .card :global(.edit) {
    position: relative;
    margin-top: 6px;
  }
  .top {
    display: flex;
    justify-content: space-between;
  }
  .gist {
    font-weight: 650;
  }
  .own,
  .short {
    color: var(--ink-2);
    font-size: 14.5px;
    line-height: 1.4;
  }
  .small {
    font-size: 12px;
  }
  .new {
    border-style: dashed;
    border-left: 4px dashed var(--edge);
    color: var(--ink-3);
  }
  .begun {
    position: relative;
    z-index: 1;
    display: grid;
    gap: 5px;
    margin: 8px 14px 0;
    padding: 8px 12px;
    border: 1px dashed var(--edge);
    border-radius: 8px;
    background: var(--page);
    font-size: 13px;
  }
  .hint {
    padding: 28px 26px;
    color: var(--ink-3);
  }
  .of-copy {
    padding: 6px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--blue-soft);
    color: var(--ink-2);
  }
  .lost {
    max-height: 170px;
    padding: 10px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--red-soft);
    overflow: auto;
  }
  @media (max-width: 900px) {
    .reader {
      grid-template-columns: minmax(0, 1fr);
    }
    .margin .card {
      position: static;
      margin: 8px 0;
    }
    .margin {
      padding: 8px 12px;
    }
  }
  @media print {
    .reader {
      display: block;
      overflow: visible;
    }
    .margin,
    .place {
      display: none;
    }
    .text {
      border: 0;
    }
  }
</style>
