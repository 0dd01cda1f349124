import {
  anchorer,
  piecesOf,
  textOf,
  type Anchoring,
  type Locator,
  type Segment,
  type Selectors,
  type Tint,
} from '$lib/core/passages';

/** A stored page in its frame: its text, and the way back to its nodes. */
export interface PageText {
  doc: Document;
  text: string;
  segments: Segment[];
}

/** Reads the text of a page in its frame. Read again after marks were drawn, since they split text nodes. */
export function readText(doc: Document): PageText {
  return { doc, ...textOf(doc.body) };
}

interface Drawn {
  id: string;
  tint: Tint;
  selectors: Selectors | null;
}

/** Takes all marks out of a page and joins its text nodes again. */
function clear(doc: Document): void {
  for (const mark of doc.querySelectorAll('mark[data-passage]')) mark.replaceWith(...mark.childNodes);
  doc.body.normalize();
}

function wrap(
  doc: Document,
  segments: Segment[],
  at: { start: number; end: number },
  id: string,
  look: string,
): void {
  for (const { node, from, to } of piecesOf(segments, at.start, at.end)) {
    const range = doc.createRange();
    range.setStart(node, from);
    range.setEnd(node, to);
    const mark = doc.createElement('mark');
    mark.dataset.passage = id;
    mark.className = look;
    range.surroundContents(mark);
  }
}

/**
 * Draws the passages of a page into it, each anchored anew, and gives where each stands. `drawn` is a selection that
 * is not kept yet.
 */
export function drawMarks(
  doc: Document,
  passages: Drawn[],
  drawn?: { start: number; end: number },
): Map<string, Anchoring> {
  clear(doc);
  const { text } = readText(doc);
  const places = new Map<string, Anchoring>();
  const find = anchorer(text);
  for (const { id, tint, selectors } of passages) {
    if (!selectors) continue;
    const at = find(selectors);
    places.set(id, at);
    if (at.state !== 'lost') wrap(doc, readText(doc).segments, at, id, tint);
  }
  if (drawn) wrap(doc, readText(doc).segments, drawn, 'new', 'drawn');
  return places;
}

/**
 * Where a node is, as a locator: the printed page of the leaf it is on, else the number of its paragraph, counting the
 * page's paragraphs from 1, headings and lists not among them, as unpaginated works are cited by common practice;
 * `undefined` when neither is known.
 */
export function placeOf(node: Node): Locator | undefined {
  const element = node.nodeType === 1 ? (node as Element) : node.parentElement;
  const leaf = element?.closest<HTMLElement>('.leaf');
  if (leaf) return leaf.dataset.page ? { label: 'page', value: leaf.dataset.page } : undefined;
  const paragraph = element?.closest('p');
  if (!paragraph) return undefined;
  const nth = [...paragraph.ownerDocument.querySelectorAll('p')].indexOf(paragraph) + 1;
  return { label: 'paragraph', value: String(nth) };
}
