<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { page } from '$app/state';
  import { findWords, KIND_LABELS, type Anchoring } from '$lib/core/passages';
  import type { Passage, PassageWords } from '$lib/server/passages';
  import { beginnings, type Fresh } from '$lib/ui/reader/begun.svelte';
  import CopyHead from '$lib/ui/reader/CopyHead.svelte';
  import { level } from '$lib/ui/reader/level.svelte';
  import EditPassage from '$lib/ui/reader/EditPassage.svelte';
  import LostPassages from '$lib/ui/reader/LostPassages.svelte';
  import PageFrame from '$lib/ui/reader/PageFrame.svelte';
  import PassageMargin from '$lib/ui/reader/PassageMargin.svelte';
  import PassageSheet from '$lib/ui/reader/PassageSheet.svelte';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { drawMarks, readText } from '$lib/ui/reader/marking';
  import { attend, takeSelection } from '$lib/ui/reader/selecting';
  import { attempt } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();

  let doc: Document | undefined = $state.raw();
  let places = $state.raw(new Map<string, Anchoring>());
  let chosen = $state<string | undefined>();
  let fresh = $state.raw<Fresh | undefined>();
  const begun = beginnings(() => data.copy.id);
  /** Words that were searched for, shown where they stand until something else is chosen. */
  let sought = $state.raw<{ start: number; end: number } | undefined>();
  let editingId = $state<string | undefined>();
  let scroller: HTMLElement | undefined = $state();

  const anchorOf = (p: Passage) => places.get(p.id)?.state ?? p.anchor;
  const isLost = (p: Passage) => anchorOf(p) === 'lost' || p.anchor === 'lost';
  const lost = $derived(data.passages.filter(isLost));
  const placed = $derived(data.passages.filter((p) => !isLost(p)));
  const editing = $derived(data.passages.find((p) => p.id === editingId));

  const margin = level((id) => [...(doc?.querySelectorAll(`mark[data-passage="${id}"]`) ?? [])]);
  const layout = () => {
    if (!doc) return;
    margin.lay(
      [...placed.map((p) => p.id), ...(fresh ? ['new'] : [])],
      editingId ?? (fresh ? 'new' : undefined),
    );
  };

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
    const top = margin.topOf(id);
    if (top !== undefined && scroller) scroller.scrollTo({ top: Math.max(0, top - 160) });
  }

  function ready(loaded: Document) {
    doc = loaded;
    const words = page.url.searchParams.get('words');
    sought = words ? findWords(readText(loaded).text, words) : undefined;
    draw();
    const wanted = page.url.searchParams.get('passage');
    void tick().then(() => (wanted ? goTo(wanted) : sought && show('new')));
    attend(loaded, { selected, left: leave, chose: (id) => (chosen = id) });
  }

  function selected() {
    if (doc && !editingId) fresh = takeSelection(doc) ?? fresh;
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
  async function keep(said: PassageWords) {
    const made = await attempt(() =>
      call<Passage>('POST', '/api/passages', { ...said, copyId: data.copy.id, selectors: fresh!.selectors }),
    );
    if (!made) return;
    lastTint = said.tint;
    if (fresh) begun.throwAway(fresh);
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
</script>

<svelte:head><title>{data.source.label}, copy · Retexa</title></svelte:head>
<svelte:window onkeydown={(e) => e.key === 'Escape' && leave()} onresize={layout} />

<CopyHead source={data.source} copy={data.copy} copies={data.copies} />
{#if data.copy.note}<p class="of-copy small-label">{data.copy.note}</p>{/if}
<LostPassages
  passages={lost}
  onedit={(id) => {
    editingId = id;
    goTo(id);
  }}
/>

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
        <div class="place" style="top: {margin.sheetTop}px">
          <PassageSheet
            exact={fresh.selectors.quote.exact}
            said={begun.saidOf(fresh) ?? firstWords()}
            kept={false}
            already={alreadyKept}
            ontype={(said) => fresh && begun.typed(fresh, said)}
            onkeep={keep}
            onleave={leave}
          />
        </div>
      {/key}
    {:else if editing}
      {#key editing.id}
        <div class="place" style="top: {margin.sheetTop}px">
          <EditPassage passage={editing} onleave={leave} />
        </div>
      {/key}
    {/if}
  </div>
  <PassageMargin
    passages={placed}
    moved={(p) => places.get(p.id)?.state === 'moved' || p.anchor === 'moved'}
    {chosen}
    {fresh}
    waiting={begun.but(fresh)}
    level={margin}
    ongo={goTo}
    onedit={(id) => ([fresh, editingId] = [undefined, id])}
    onbegun={(one) => ([fresh, editingId] = [one, undefined])}
    onthrow={begun.throwAway}
  />
</div>

<style>
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
  .place {
    position: absolute;
    z-index: 45;
    left: 50%;
    padding-bottom: 40px;
    transform: translateX(-50%);
  }
  .of-copy {
    padding: 6px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--blue-soft);
    color: var(--ink-2);
  }
  @media (max-width: 900px) {
    .reader {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media print {
    .reader {
      display: block;
      overflow: visible;
    }
    .place {
      display: none;
    }
    .text {
      border: 0;
    }
  }
</style>
