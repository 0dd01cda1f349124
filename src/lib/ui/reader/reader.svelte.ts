import { tick, untrack } from 'svelte';
import { findWords, KIND_LABELS, locatorText, type Tint } from '$lib/core/passages';
import type { PassageItem, PassageWords } from '$lib/server/passages';
import { call } from '../frame/client';
import { drafts } from '../frame/drafts';
import { renewed } from '../frame/live.svelte';
import { attempt, doneWithUndo, trouble } from '../frame/toasts.svelte';
import { asSaid, beginnings, joinedWith, nothingSaid, type Begun, type Fresh } from './begun.svelte';
import { layFigures } from './boxing';
import { caretIn, type Caret } from './caret';
import { figuring, type FigureSaid } from './figuring.svelte';
import { hits } from './hits.svelte';
import type { Leaves } from './leaves';
import { level } from './level.svelte';
import { drawMarksGently, markedLeaves, readText, type Marks } from './marking';
import { attend, takeSelection, type Attending } from './selecting';

/** What is open in the reader. */
interface Open {
  copy: { id: string };
  source: { id: string };
  passages: PassageItem[];
}

/** How far above what is shown the reader stops, in pixels. */
const ABOVE = 160;

const NOTHING: Marks = { places: new Map(), of: new Map() };

/**
 * The reader of a copy: its document with what is marked in it, what is selected, what is chosen and what is being written.
 * One thing is at hand at a time: words selected and not kept (`fresh`), a figure that was drawn and is not kept (`figures.fresh`), a word on the whole document (`whole`), or a kept
 * passage being changed (`editingId`). Must be made while a component is.
 */
export function reader(data: () => Open, scroller: () => HTMLElement | undefined) {
  let doc: Document | undefined = $state.raw();
  let leaves: Leaves | undefined = $state.raw();
  let marks = $state.raw(NOTHING);
  let chosen = $state<string | undefined>();
  let fresh = $state.raw<Fresh | undefined>();
  let whole = $state(false);
  let editingId = $state<string | undefined>();
  /** Words selected while a passage is being changed: they can become its place. */
  let elsewhere = $state.raw<Fresh | undefined>();
  /** Words that were searched for, shown where they stand until something else is chosen. */
  let sought = $state.raw<{ start: number; end: number } | undefined>();
  /** The next words that are selected are added to those at hand. */
  let adding = $state(false);
  /** What was typed last of those at hand. */
  let latest: PassageWords | undefined;
  let covered = $state(false);
  let caretOn = $state(false);
  let caret: Caret | undefined;
  let lastTint: Tint = 'claim';

  const begun = beginnings(() => data().copy.id);
  const figures = figuring(
    () => data().copy.id,
    () => ([fresh, editingId, whole] = [undefined, undefined, false]),
  );
  const anchorOf = (p: PassageItem) => marks.places.get(p.id)?.state ?? p.anchor;
  const isLost = (p: PassageItem) => anchorOf(p) === 'lost' || p.anchor === 'lost';
  const hasPlace = (p: PassageItem) => p.selectors !== null || p.figure !== null;
  const lost = $derived(data().passages.filter((p) => hasPlace(p) && isLost(p)));
  const onWhole = $derived(data().passages.filter((p) => !hasPlace(p)));
  const placed = $derived(data().passages.filter((p) => hasPlace(p) && !isLost(p)));
  const editing = $derived(data().passages.find((p) => p.id === editingId));
  /** The marks under what is being written, which can be covered. */
  const atHand = $derived(fresh || figures.fresh ? 'new' : editingId);

  const topOf = (id: string): number | undefined => {
    const [mark] = marks.of.get(id) ?? [];
    return mark && (leaves?.topOfMark(mark) ?? mark.getBoundingClientRect().top);
  };
  const bottomOf = (id: string): number | undefined => {
    const mark = marks.of.get(id)?.at(-1);
    return mark && (leaves?.bottomOfMark(mark) ?? mark.getBoundingClientRect().bottom);
  };
  const margin = level(topOf, bottomOf);
  const found = hits(
    () => doc,
    (range) => bringIntoView(range.getBoundingClientRect().top, range.startContainer),
  );

  function layout(): void {
    if (!doc) return;
    margin.lay(
      [...placed.map((p) => p.id), ...(fresh || figures.fresh ? ['new'] : [])],
      editingId ?? (fresh || figures.fresh ? 'new' : undefined),
    );
  }

  /** The boxes of the figures kept, and of the one at hand. */
  function boxes() {
    const kept = data().passages.flatMap(({ id, tint, figure, gist, exact }) =>
      figure ? [{ id, tint, place: figure.place, name: gist || exact || 'Figure' }] : [],
    );
    const { fresh: begun } = figures;
    return begun ? [...kept, { id: 'new', tint: 'new', place: begun.place, name: '' }] : kept;
  }

  /** Marks are drawn a little at a time; only those asked for last are drawn to their end. */
  let asked = 0;
  let drawn: Promise<void> = Promise.resolve();
  const draw = (): void => void (drawn = drawAnew());
  async function drawAnew(): Promise<void> {
    if (!doc) return;
    const mine = ++asked;
    const selected = fresh ? [fresh, ...(fresh.further ?? [])] : sought ? [sought] : [];
    const made = await drawMarksGently(doc, data().passages, selected, () => mine === asked);
    if (!made) return;
    for (const [id, box] of layFigures(doc, boxes())) made.of.set(id, [box]);
    marks = made;
    found.again();
    void tick().then(layout);
  }
  $effect(() => {
    void [data().passages, fresh, figures.fresh, sought, doc];
    untrack(draw);
  });
  $effect(() => {
    for (const [id, of] of marks.of)
      for (const mark of of) {
        mark.classList.toggle('chosen', id === chosen);
        mark.classList.toggle('covered', covered && id === atHand);
      }
  });
  $effect(() => {
    void [editingId, placed];
    void tick().then(layout);
  });
  $effect(() => {
    // What is covered is what is being written about; the next thing is not.
    void atHand;
    covered = false;
  });

  function bringIntoView(top: number, node?: Node): void {
    const view = scroller();
    if (!view) return;
    // A place on a leaf that is not drawn is where its leaf is, until it is.
    const leaf = (node?.nodeType === 1 ? (node as Element) : node?.parentElement)?.closest<HTMLElement>(
      '.leaf',
    );
    const at = leaf && leaves && !leaf.querySelector('img') ? leaves.topOf(Number(leaf.dataset.leaf)) : top;
    if (at < view.scrollTop + 40 || at > view.scrollTop + view.clientHeight - 120)
      view.scrollTo({ top: Math.max(0, at - ABOVE) });
  }

  function show(id: string): void {
    const top = topOf(id);
    const view = scroller();
    if (top !== undefined && view) view.scrollTo({ top: Math.max(0, top - ABOVE) });
  }

  /** Under which name what is typed on the whole of the copy waits. */
  const ofWhole = () => `whole ${data().copy.id}`;

  const begin = (): PassageWords => ({
    ...nothingSaid(figures.fresh ? 'figure' : whole ? 'response' : 'quotation', lastTint),
    locator: fresh?.place ?? figures.fresh?.locator ?? null,
  });

  const post = (
    said: PassageWords,
    selectors: Fresh['selectors'] | null,
    more: { exact?: string; figure?: FigureSaid; further?: Fresh['selectors'][] } = {},
  ) =>
    attempt(() =>
      call<PassageItem>('POST', '/api/passages', { ...said, copyId: data().copy.id, selectors, ...more }),
    );

  async function keep(said: PassageWords, exact: string, figure?: FigureSaid): Promise<void> {
    const further = fresh?.further?.map((one) => one.selectors) ?? [];
    const more = figure ? { exact, figure } : { further };
    const made = await post(said, fresh?.selectors ?? null, more);
    if (!made) return;
    lastTint = said.tint;
    if (figure) {
      figures.throwAway();
      figures.leave();
    } else if (fresh) begun.throwAway(fresh);
    else drafts.drop(ofWhole());
    [fresh, whole] = [undefined, false];
    await renewed();
    chosen = made.id;
    await readOn(made.id);
  }

  /** With the caret, one goes on reading behind what was just kept. */
  async function readOn(id: string): Promise<void> {
    if (!caret?.on) return;
    await tick();
    await drawn;
    const last = marks.of.get(id)?.at(-1);
    doc?.defaultView?.focus();
    if (last) caret.behind(last);
  }

  /** Keeps what the caret has selected, as a kind or in a tint, and reads on. */
  async function keepAtOnce(as: Parameters<Attending['keep']>[0]): Promise<void> {
    const words = doc && takeSelection(doc);
    if (!words) return;
    const said: PassageWords = {
      ...begin(),
      kind: 'quotation',
      ...as,
      locator: words.place ?? null,
    };
    const made = await post(said, words.selectors);
    if (!made) return;
    lastTint = said.tint;
    const what = [KIND_LABELS[said.kind], locatorText(said.locator)].filter(Boolean).join(', ');
    doneWithUndo(`Kept: ${what}.`, () => call('POST', `/api/passages/${made.id}/bin`, { binned: true }));
    await renewed();
    chosen = made.id;
    await readOn(made.id);
  }

  const leave = (): void => {
    figures.leave();
    if (caret?.on && !fresh && !editingId && !whole) {
      caret.hide();
      caretOn = false;
    }
    [fresh, sought, editingId, elsewhere, whole] = [undefined, undefined, undefined, undefined, false];
    adding = false;
  };

  function selected(): void {
    const words = doc && takeSelection(doc);
    if (!words) return;
    figures.leave();
    const joined = adding && fresh ? joinedWith(fresh, words) : undefined;
    const [before, adds] = [fresh, adding];
    adding = false;
    if (editingId) elsewhere = words;
    else if (adds && before && !joined)
      trouble(new Error('These words overlap with those that are selected. Select others.'));
    else if (joined && before) {
      const said = latest;
      begun.throwAway(before);
      if (said) begun.typed(joined, { ...said, locator: joined.place ?? said.locator });
      [fresh, whole] = [joined, false];
    } else [fresh, whole] = [words, false];
  }

  return {
    begun,
    figures,
    margin,
    hits: found,
    get doc() {
      return doc;
    },
    get leaves() {
      return leaves;
    },
    get chosen() {
      return chosen;
    },
    get fresh() {
      return fresh;
    },
    get whole() {
      return whole;
    },
    get editing() {
      return editing;
    },
    get elsewhere() {
      return elsewhere;
    },
    get lost() {
      return lost;
    },
    get placed() {
      return placed;
    },
    get onWhole() {
      return onWhole;
    },
    get adding() {
      return adding;
    },
    /** Adds the next words that are selected to those at hand, or not any more. */
    add: () => (adding = !adding),
    get covered() {
      return covered;
    },
    get caretOn() {
      return caretOn;
    },
    /** How many passages stand on each leaf. */
    get marked() {
      return markedLeaves(marks);
    },
    /** The passage that has the very words selected, if there is one, in words. */
    get already(): string | undefined {
      const exact = fresh?.selectors.quote.exact;
      const { start = -1 } = fresh?.selectors.position ?? {};
      const one = data().passages.find(
        (p) => exact !== undefined && p.exact === exact && p.selectors?.position.start === start,
      );
      return one && `${KIND_LABELS[one.kind].toLowerCase()}${one.gist ? `, “${one.gist}”` : ''}.`;
    },
    moved: (p: PassageItem) => marks.places.get(p.id)?.state === 'moved' || p.anchor === 'moved',
    /** Whether what stood around a lost passage still stands. */
    knowsWhere: (id: string) => marks.places.get(id)?.near !== undefined,
    /** Shows where a lost passage used to be: what is between the words that were around it. */
    showWhere(id: string) {
      sought = marks.places.get(id)?.near;
      void tick()
        .then(() => drawn)
        .then(() => show('new'));
    },
    layout,
    leave,
    keep,
    /** What is said of something new before anything is. */
    begin(): PassageWords {
      const box = figures.fresh;
      if (box) {
        const { said } = figures.saidOf(box) ?? {};
        return said ? asSaid(said) : begin();
      }
      const waits = fresh ? begun.saidOf(fresh) : drafts.find<PassageWords>(ofWhole());
      return waits ? asSaid(waits) : begin();
    },
    /** Puts down what is being typed of something new, so that nothing that comes between takes it away. */
    typed(said: PassageWords, exact: string, figure?: FigureSaid) {
      latest = said;
      if (figure) figures.typed(said, exact, figure);
      else if (fresh) begun.typed(fresh, said);
      else if (said.gist || said.ownWords || said.tags.length) drafts.keep(ofWhole(), said);
      else drafts.drop(ofWhole());
    },
    cover: (yes: boolean) => (covered = yes),
    /** Goes to a passage: its line comes into view and its card is chosen. */
    goTo(id: string) {
      chosen = id;
      show(id);
    },
    goToLeaf: (leaf: number) =>
      void (leaves && scroller()?.scrollTo({ top: Math.max(0, leaves.topOf(leaf) - 8) })),
    edit(id: string) {
      figures.leave();
      [fresh, whole, elsewhere, editingId] = [undefined, false, undefined, id];
    },
    resume(one: Begun) {
      figures.leave();
      [fresh, whole, editingId] = [one, false, undefined];
    },
    sayOfWhole() {
      figures.leave();
      [fresh, editingId, whole] = [undefined, undefined, true];
    },
    /** Reads by keys: a caret in the text, or none any more. */
    toggleCaret() {
      if (!caret) return;
      if (caret.on) caret.hide();
      else caret.show((scroller()?.scrollTop ?? 0) + 8);
      caretOn = caret.on;
    },
    /** Takes a document over that is in its frame; shows what the address asks for, a passage or words. */
    ready(
      loaded: Document,
      its: Leaves | undefined,
      wanted: { passage?: string | null; words?: string | null },
    ) {
      figures.ready(loaded);
      [doc, leaves] = [loaded, its];
      // The document is another one, so that its marks are drawn.
      sought = wanted.words ? findWords(readText(loaded).text, wanted.words) : undefined;
      if (wanted.passage) chosen = wanted.passage;
      void tick()
        .then(() => drawn)
        .then(() => (wanted.passage ? show(wanted.passage) : sought && show('new')));
      caret = caretIn(loaded, (range) => bringIntoView(range.getBoundingClientRect().top));
      attend(loaded, caret, {
        selected,
        left: leave,
        chose: (id) => (chosen = id),
        keep: (as) => void keepAtOnce(as),
      });
    },
  };
}
export type Reader = ReturnType<typeof reader>;
