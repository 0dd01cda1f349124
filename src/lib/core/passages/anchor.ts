import { decodeEntities, similarity, toCodePoint, toCodeUnit } from '../text';
import { CONTEXT, type AnchorState, type Locator, type Selectors } from './types';

/**
 * The selectors of a stretch of text (UTF-16 offsets, end exclusive). White space at its ends is left
 * out, and half a character at an end is taken whole.
 * Throws a RangeError when nothing but white space remains.
 */
export function describe(text: string, start: number, end: number): Selectors {
  while (start < end && /\s/u.test(text[start]!)) start++;
  while (end > start && /\s/u.test(text[end - 1]!)) end--;
  if (start >= end) throw new RangeError('A passage needs some text');
  if (/[\uDC00-\uDFFF]/.test(text[start]!) && start > 0) start--;
  if (/[\uD800-\uDBFF]/.test(text[end - 1]!) && end < text.length) end++;
  return {
    quote: {
      exact: text.slice(start, end),
      prefix: text.slice(Math.max(0, start - CONTEXT), start),
      suffix: text.slice(end, end + CONTEXT),
    },
    position: { start: toCodePoint(text, start), end: toCodePoint(text, end) },
  };
}

/** Where a passage stands in a text (UTF-16 offsets), or how near it its surroundings still are. */
export interface Anchoring {
  state: AnchorState;
  start: number;
  end: number;
  near?: { start: number; end: number };
}

/** Folds what renderings differ in (white space, quotation marks, dashes), one unit to one unit. */
const level = (text: string) =>
  text
    .replace(/\s/gu, ' ')
    .replace(/[‘’‚‛ʼ]/gu, "'")
    .replace(/[“”„‟«»]/gu, '"')
    .replace(/[‐‑‒–—−]/gu, '-');

function occurrences(text: string, exact: string): number[] {
  const at: number[] = [];
  for (let i = text.indexOf(exact); i !== -1 && at.length < 2_000; i = text.indexOf(exact, i + 1)) at.push(i);
  return at;
}

/** How well the surroundings of a place agree with a selector's context, 0 to 2. */
function agreement(text: string, start: number, end: number, { prefix, suffix }: Selectors['quote']): number {
  const before = text.slice(Math.max(0, start - prefix.length), start);
  const after = text.slice(end, end + suffix.length);
  const score = (a: string, b: string) => (a === b ? 1 : similarity(a, b));
  return score(level(before), level(prefix)) + score(level(after), level(suffix));
}

/**
 * Finds a passage in a text that may have changed. The position is tried first, with the quote as its witness; then
 * every place with the exact words (differences of white space, quotation marks and dashes aside), the one whose
 * surroundings agree best and, among equals, the nearest to the old position. A quotation of which no whole
 * occurrence exists is `lost`.
 */
export function anchor(text: string, selectors: Selectors): Anchoring {
  const { quote, position } = selectors;
  const was = toCodeUnit(text, position.start);
  const held = was + quote.exact.length;
  const places = occurrences(level(text), level(quote.exact));
  if (places.length === 0) {
    const near = neighbourhood(text, quote);
    return { state: 'lost', start: -1, end: -1, ...(near ? { near } : {}) };
  }
  const inPlace = text.slice(was, held) === quote.exact;
  if (inPlace && (places.length === 1 || agreement(text, was, held, quote) > 1.2))
    return { state: 'found', start: was, end: held };
  let best = { start: -1, score: -1 };
  for (const start of places) {
    const score = agreement(text, start, start + quote.exact.length, quote);
    const nearer = Math.abs(start - was) < Math.abs(best.start - was);
    if (score > best.score + 1e-9 || (Math.abs(score - best.score) <= 1e-9 && nearer))
      best = { start, score };
  }
  const end = best.start + quote.exact.length;
  return { state: best.start === was && inPlace ? 'found' : 'moved', start: best.start, end };
}

/** Where the last words before and the first words after a lost passage still stand, in order and not far apart. */
function neighbourhood(text: string, { exact, prefix, suffix }: Selectors['quote']) {
  const flat = level(text);
  const before = level(prefix.slice(-24));
  const after = level(suffix.slice(0, 24));
  if (before.trim().length < 8 || after.trim().length < 8) return undefined;
  const at = flat.indexOf(before);
  if (at === -1) return undefined;
  const start = at + before.length;
  const end = flat.indexOf(after, start);
  return end !== -1 && end - start <= 4 * exact.length + 200 ? { start, end } : undefined;
}

/**
 * Where some words stand in a text, whatever white space is between them; UTF-16 offsets. `undefined` when they are
 * not there. For words selected on a page as it was seen, whose white space is not that of the kept text.
 */
export function findWords(text: string, words: string): { start: number; end: number } | undefined {
  const wanted = words.replace(/\s+/gu, '');
  if (wanted === '') return undefined;
  // How far to fall back where the words stop agreeing (Knuth, Morris and Pratt 1977), so that no text is read twice.
  const back = new Int32Array(wanted.length);
  for (let i = 1, n = 0; i < wanted.length; i++) {
    while (n > 0 && wanted[i] !== wanted[n]) n = back[n - 1]!;
    if (wanted[i] === wanted[n]) n++;
    back[i] = n;
  }
  const at = new Int32Array(wanted.length);
  for (let i = 0, n = 0, seen = 0; i < text.length; i++) {
    if (/\s/u.test(text[i]!)) continue;
    at[seen++ % wanted.length] = i;
    while (n > 0 && text[i] !== wanted[n]) n = back[n - 1]!;
    if (text[i] === wanted[n]) n++;
    if (n === wanted.length) return { start: at[seen % wanted.length]!, end: i + 1 };
  }
  return undefined;
}

const bare = (html: string) => decodeEntities(html.replace(/<[^>]*>/g, ''));

/**
 * The locator of words in a reading page: the printed page of the leaf they begin on, else the number of their
 * paragraph, counted from 1 as unpaginated works are cited by common practice; `null` when neither is known.
 */
export function locatorIn(html: string, exact: string): Locator | null {
  const first = exact.split('\n')[0]!.trim().slice(0, 80);
  if (!first) return null;
  if (html.includes('class="leaf"')) {
    for (const leaf of html.split('<section class="leaf"').slice(1)) {
      if (!bare(leaf.slice(leaf.indexOf('>') + 1)).includes(first)) continue;
      const label = /^[^>]*\sdata-page="([^"]+)"/.exec(leaf)?.[1];
      return label ? { label: 'page', value: bare(label) } : null;
    }
    return null;
  }
  const nth = html
    .split(/<p[\s>]/)
    .slice(1)
    .findIndex((p) => bare(p).includes(first));
  return nth === -1 ? null : { label: 'paragraph', value: String(nth + 1) };
}
