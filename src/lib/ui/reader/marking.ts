import {
  anchorer,
  textOf,
  worstOf,
  type Anchoring,
  type Locator,
  type Segment,
  type Selectors,
  type Stretch,
  type Tint,
} from '$lib/core/passages';

/** A stored page in its frame: its text, and the way back to its nodes. */
export interface PageText {
  doc: Document;
  text: string;
  segments: Segment[];
}

/** What was read of each document. Its segments are kept up with the marks drawn in it, which split its text nodes. */
const texts = new WeakMap<Document, PageText>();

/** Reads the text of a page in its frame. Nothing but marks may split its text nodes or join them. */
export function readText(doc: Document): PageText {
  let read = texts.get(doc);
  if (!read) texts.set(doc, (read = { doc, ...textOf(doc.body) }));
  return read;
}

interface Drawn {
  id: string;
  tint: Tint;
  selectors: Selectors | null;
  further?: readonly Selectors[];
}

/** What was drawn: where each passage stands, and its marks, in the order of the text. */
export interface Marks {
  places: Map<string, Anchoring>;
  of: Map<string, HTMLElement[]>;
}

/** Takes all marks out of a page and joins its text nodes again. */
function clear(doc: Document): void {
  const marks = doc.querySelectorAll('mark[data-passage]');
  if (marks.length) texts.delete(doc);
  for (const mark of marks) {
    const within = mark.parentNode;
    mark.replaceWith(...mark.childNodes);
    within?.normalize();
  }
}

/** The index of the last segment that begins at or before an offset. */
function segmentAt(segments: readonly Segment[], offset: number): number {
  let [low, high] = [0, segments.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (segments[middle]!.start <= offset) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Draws one mark of a stretch, splitting the text nodes at its ends; the segments are kept up with it. */
function wrap(doc: Document, segments: Segment[], at: Stretch, id: string, look: string): HTMLElement[] {
  const marks: HTMLElement[] = [];
  for (let i = segmentAt(segments, at.start); i < segments.length && segments[i]!.start < at.end; i++) {
    const { start, node } = segments[i]!;
    const from = Math.max(at.start - start, 0);
    const to = Math.min(at.end - start, node.data.length);
    if (from >= to) continue;
    const within = from > 0 ? node.splitText(from) : node;
    const behind = to - from < within.data.length ? within.splitText(to - from) : undefined;
    segments.splice(
      i,
      1,
      ...(from > 0 ? [{ start, node }] : []),
      { start: start + from, node: within },
      ...(behind ? [{ start: start + to, node: behind }] : []),
    );
    i += from > 0 ? 1 : 0;
    const mark = doc.createElement('mark');
    mark.dataset.passage = id;
    mark.className = look;
    within.replaceWith(mark);
    mark.append(within);
    marks.push(mark);
  }
  return marks;
}

/** Draws marks step by step: between two of them it can be left, and the page be used. */
function* drawing(doc: Document, passages: Drawn[], drawn: readonly Stretch[]): Generator<void, Marks> {
  clear(doc);
  const { text, segments } = readText(doc);
  const marks: Marks = { places: new Map(), of: new Map() };
  const find = anchorer(text);
  // What is selected is seen at once.
  if (drawn.length)
    marks.of.set(
      'new',
      drawn.flatMap((at) => wrap(doc, segments, at, 'new', 'drawn')),
    );
  yield;
  for (const { id, tint, selectors, further = [] } of passages) {
    if (!selectors) continue;
    const all = [selectors, ...further].map(find);
    const state = worstOf(all.map((at) => at.state));
    marks.places.set(id, { ...(all.find((at) => at.state === 'lost') ?? all[0]!), state });
    if (state !== 'lost')
      marks.of.set(
        id,
        all.flatMap((at) => wrap(doc, segments, at, id, tint)),
      );
    yield;
  }
  return marks;
}

/**
 * Draws the passages of a page into it, each anchored anew, and gives where each stands. `drawn` is what is
 * selected and not kept yet.
 */
export function drawMarks(doc: Document, passages: Drawn[], drawn: readonly Stretch[] = []): Marks {
  const steps = drawing(doc, passages, drawn);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** How long marks are drawn before the page may answer, in milliseconds. */
const SLICE = 12;

/** The same a little at a time, so that the page goes on answering; nothing when `wanted` says no more meanwhile. */
export async function drawMarksGently(
  doc: Document,
  passages: Drawn[],
  drawn: readonly Stretch[],
  wanted: () => boolean,
): Promise<Marks | undefined> {
  const steps = drawing(doc, passages, drawn);
  for (let since = performance.now(); ;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - since < SLICE) continue;
    await new Promise((resolve) => setTimeout(resolve));
    if (!wanted()) return undefined;
    since = performance.now();
  }
}

/** How many kept passages begin on each leaf, counted from 1. */
export function markedLeaves({ of }: Marks): Map<number, number> {
  const leaves = new Map<number, number>();
  for (const [id, [mark]] of of) {
    const leaf = Number(mark?.closest<HTMLElement>('.leaf')?.dataset.leaf);
    if (leaf && id !== 'new') leaves.set(leaf, (leaves.get(leaf) ?? 0) + 1);
  }
  return leaves;
}

/** A stretch of a page as a range of it; nothing where its text is no longer there. */
export function rangeOf(
  doc: Document,
  segments: readonly Segment[],
  { start, end }: Stretch,
): Range | undefined {
  if (segments.length === 0) return undefined;
  const [first, last] = [segments[segmentAt(segments, start)]!, segments[segmentAt(segments, end - 1)]!];
  if (!first.node.isConnected || !last.node.isConnected) return undefined;
  const range = doc.createRange();
  range.setStart(first.node, Math.min(start - first.start, first.node.data.length));
  range.setEnd(last.node, Math.min(end - last.start, last.node.data.length));
  return range;
}

const elementAt = (node: Node): Element | null =>
  node.nodeType === 1 ? (node as Element) : node.parentElement;

/** The printed page a place is on in a book without leaves, where the book says where its pages begin. */
function pageBegun(node: Node): string | undefined {
  const begins = [...(node.ownerDocument?.querySelectorAll<HTMLElement>('[data-begins]') ?? [])];
  return begins.findLast((mark) => mark.compareDocumentPosition(node) & Node.DOCUMENT_POSITION_FOLLOWING)
    ?.dataset.begins;
}

const pages = (begins: string, ends: string | undefined): Locator => ({
  label: 'page',
  value: ends && ends !== begins ? `${begins}–${ends}` : begins,
});

/**
 * Where words between two nodes are, as a locator: the printed page they are on, or the range of those they begin and end on,
 * where the document says its pages; else the number of the paragraph they begin in, counting the page's paragraphs from 1, headings and
 * lists not among them, as unpaginated works are cited by common practice; `undefined` when neither is known.
 */
export function placeOf(from: Node, to: Node = from): Locator | undefined {
  const [first, last] = [from, to].map((node) => elementAt(node)?.closest<HTMLElement>('.leaf'));
  if (first) {
    const [begins, ends] = [first.dataset.page, last?.dataset.page];
    return begins ? pages(begins, ends) : undefined;
  }
  const begun = pageBegun(from);
  if (begun) return pages(begun, pageBegun(to));
  const paragraph = elementAt(from)?.closest('p');
  if (!paragraph) return undefined;
  const nth = [...paragraph.ownerDocument.querySelectorAll('p')].indexOf(paragraph) + 1;
  return { label: 'paragraph', value: String(nth) };
}
