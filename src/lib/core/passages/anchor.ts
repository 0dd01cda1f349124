import { nfc, toCodePoint } from '../text';
import { lettersOf } from './letters';
import {
  AROUND,
  between,
  Ground,
  MOST_SAME,
  placeBetween,
  placeOfQuote,
  TELLING,
  wordsKept,
  type Wanted,
} from './places';
import { CONTEXT, type AnchorState, type Selectors } from './types';

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
  /** Where it used to be: of what is lost, the place between the words that were before and behind it. */
  near?: { start: number; end: number };
}

/** Selectors as they are looked for: a position, or a side of the surroundings, may not be known. */
export interface Sought {
  quote: { exact: string; prefix: string; suffix: string };
  position?: Selectors['position'] | undefined;
}

const squashed = (text: string) => nfc(text).replace(/\s+/gu, ' ').trim();

/** Whether two wordings are the same but for the white space between their words. */
export const sameWords = (a: string, b: string): boolean => a === b || squashed(a) === squashed(b);

const inWord = (character: string | undefined): boolean =>
  character !== undefined && /[\p{L}\p{N}\p{M}]/u.test(character);

/** Most letters of a word that are taken back in, where those at the end of a changed place fit nothing of the quotation. */
const CUT_OFF = 3;

/** A changed place that begins or ends within a word, taken to where the word does if the quotation did so. */
function inWholeWords(
  text: string,
  { start, end }: { start: number; end: number },
  { exact, prefix, suffix }: Sought['quote'],
): { start: number; end: number } {
  let [first, last] = [start, end];
  if (inWord(exact[0]) && !inWord(prefix.at(-1)) && inWord(text[start]))
    while (start - first <= CUT_OFF && inWord(text[first - 1])) first--;
  if (inWord(exact.at(-1)) && !inWord(suffix[0]) && inWord(text[end - 1]))
    while (last - end <= CUT_OFF && inWord(text[last])) last++;
  return { start: start - first <= CUT_OFF ? first : start, end: last - end <= CUT_OFF ? last : end };
}

/** Finds words that have no letter in them, which nothing but themselves can stand for. */
function anchorSigns(ground: Ground, { quote, position }: Sought, was: number): Anchoring {
  const { text } = ground;
  let best = -1;
  for (
    let i = text.indexOf(quote.exact), n = 0;
    i !== -1 && n < MOST_SAME;
    i = text.indexOf(quote.exact, i + 1), n++
  )
    if (best === -1 || Math.abs(i - was) < Math.abs(best - was)) best = i;
  if (best === -1) return { state: 'lost', start: -1, end: -1 };
  return {
    state: !position || best === was ? 'found' : 'moved',
    start: best,
    end: best + quote.exact.length,
  };
}

function wantedOf(ground: Ground, { quote, position }: Sought, was: number): Wanted {
  const before = lettersOf(quote.prefix).codes.slice(-AROUND);
  const behind = lettersOf(quote.suffix).codes.slice(0, AROUND);
  const lead = Math.max(0, quote.exact.search(/[\p{L}\p{N}]/u));
  return {
    quote: lettersOf(quote.exact),
    before: before.length >= TELLING ? before : new Uint16Array(0),
    behind: behind.length >= TELLING ? behind : new Uint16Array(0),
    told: before.length >= TELLING || behind.length >= TELLING,
    about: position ? ground.letterAt(was + lead) : 0,
  };
}

/** What is said of a place in letters. */
function standing(
  ground: Ground,
  { quote, position }: Sought,
  place: { start: number; end: number },
  was: number,
): Anchoring {
  const at = ground.unitsOf(place, quote.exact);
  const now = ground.text.slice(at.start, at.end);
  if (!sameWords(now, quote.exact)) return { state: 'changed', ...inWholeWords(ground.text, at, quote) };
  return { state: !position || at.start === was ? 'found' : 'moved', ...at };
}

function find(ground: Ground, sought: Sought): Anchoring {
  const { quote, position } = sought;
  const { text } = ground;
  const was = position ? ground.unitOf(position.start) : -1;
  const end = was + quote.exact.length;
  // Where nothing changed, nothing is looked for.
  if (
    position &&
    text.startsWith(quote.exact, was) &&
    text.endsWith(quote.prefix.slice(-TELLING), was) &&
    text.startsWith(quote.suffix.slice(0, TELLING), end)
  )
    return { state: 'found', start: was, end };
  const wanted = wantedOf(ground, sought, was);
  if (wanted.quote.codes.length === 0) return anchorSigns(ground, sought, was);
  let place: { start: number; end: number } | undefined = placeOfQuote(
    ground,
    wanted,
    position && wanted.about,
  );
  const gap = place ? undefined : between(ground, wanted);
  const units = (stretch: { start: number; end: number }) => ground.unitsOf(stretch, quote.exact);
  if (gap && gap.end > gap.start) {
    const now = units(gap);
    if (wordsKept(quote.exact, text.slice(now.start, now.end)) >= 0.6) place = gap;
  }
  if (!place) {
    const { at } = ground.letters;
    const behindGap = (gap && at[gap.end]) ?? text.length;
    const near = gap && { start: gap.start > 0 ? at[gap.start - 1]! + 1 : 0, end: behindGap };
    return { state: 'lost', start: -1, end: -1, ...(near && near.end > near.start ? { near } : {}) };
  }
  return standing(ground, sought, place, was);
}

/**
 * Makes a text ready for finding many passages in it that were kept of an earlier text, and gives what finds one.
 *
 * A passage is `found` where it was, `moved` when its words stand elsewhere, `changed` when they stand there with a few letters,
 * marks, blanks or words put in, left out or replaced, and `lost` otherwise. The words before and behind say which of
 * several places is meant; where they stand together, with nothing between, the passage is lost even if its words are found
 * somewhere else.
 */
export function anchorer(text: string): (sought: Sought) => Anchoring {
  const ground = new Ground(text);
  return (sought) => find(ground, sought);
}

/** Places in order: the longest run of passages whose words stand unchanged one behind the other, as they stood before. */
function inOrder(order: readonly number[], found: readonly Anchoring[]): number[] {
  const firm = order.filter((i) => found[i]!.state === 'found' || found[i]!.state === 'moved');
  // The longest increasing subsequence of where they stand (Schensted 1961): of each length the one that ends soonest.
  const ends: number[] = [];
  const before = new Map<number, number | undefined>();
  for (const i of firm) {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (found[ends[middle]!]!.start < found[i]!.start) low = middle + 1;
      else high = middle;
    }
    before.set(i, ends[low - 1]);
    ends[low] = i;
  }
  const run: number[] = [];
  for (let i = ends.at(-1); i !== undefined; i = before.get(i)) run.push(i);
  return run.reverse();
}

/**
 * Finds many passages of one text that was changed. What is found of each alone is held against the others: a passage with
 * changed words that would stand somewhere else than between those it stood between is lost, since a text that is alike in
 * many places has such a place for everything.
 */
export function anchorAll(text: string, sought: readonly Sought[]): Anchoring[] {
  const ground = new Ground(text);
  const found = sought.map((one) => find(ground, one));
  const order = sought.flatMap(({ position }, i) => (position ? [i] : []));
  order.sort((a, b) => sought[a]!.position!.start - sought[b]!.position!.start);
  const run = inOrder(order, found);
  // Too few to tell an order.
  if (run.length < 3 || run.length * 4 < order.length) return found;
  const firm = new Set(run);
  let next = 0;
  for (const i of order) {
    while (next < run.length && sought[run[next]!]!.position!.start <= sought[i]!.position!.start) next++;
    const { state, start, end } = found[i]!;
    if (firm.has(i) || (state !== 'changed' && state !== 'lost')) continue;
    const from = next > 0 ? found[run[next - 1]!]!.start : 0;
    const to = next < run.length ? found[run[next]!]!.end : text.length;
    if (state === 'changed' && start >= from && end <= to) continue;
    const was = ground.unitOf(sought[i]!.position!.start);
    const wanted = wantedOf(ground, sought[i]!, was);
    const place = placeBetween(ground, wanted, ground.letterAt(from), ground.letterAt(to));
    if (place) found[i] = standing(ground, sought[i]!, place, was);
    else if (state === 'changed') found[i] = { state: 'lost', start: -1, end: -1 };
  }
  return found;
}

/** Finds one passage in a text; see `anchorAll`, which is faster for several and knows more of them. */
export const anchor = (text: string, selectors: Sought): Anchoring => anchorer(text)(selectors);
