import { nfc, toCodePoint } from '../text';
import { lettersOf } from './letters';
import { AROUND, between, Ground, MOST_SAME, placeOfQuote, TELLING, wordsKept, type Wanted } from './places';
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
  const letters = lettersOf(quote.exact);
  if (letters.codes.length === 0) return anchorSigns(ground, sought, was);
  const before = lettersOf(quote.prefix).codes.slice(-AROUND);
  const behind = lettersOf(quote.suffix).codes.slice(0, AROUND);
  const lead = Math.max(0, quote.exact.search(/[\p{L}\p{N}]/u));
  const about = position ? ground.letterAt(was + lead) : 0;
  const wanted: Wanted = {
    quote: letters,
    before: before.length >= TELLING ? before : new Uint16Array(0),
    behind: behind.length >= TELLING ? behind : new Uint16Array(0),
    told: before.length >= TELLING || behind.length >= TELLING,
    about,
  };
  let place: { start: number; end: number } | undefined = placeOfQuote(ground, wanted, position && about);
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
  const at = units(place);
  const now = text.slice(at.start, at.end);
  if (!sameWords(now, quote.exact)) return { state: 'changed', ...inWholeWords(text, at, quote) };
  return { state: !position || at.start === was ? 'found' : 'moved', ...at };
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

/** Finds one passage in a text; see `anchorer`, which is faster for several. */
export const anchor = (text: string, selectors: Sought): Anchoring => anchorer(text)(selectors);
