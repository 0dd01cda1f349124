import { foldWords } from '../text';

/** How many words in a row one's own words may share with the author's before it counts as copying; common practice. */
export const RUN_LIMIT = 5;

/** A stretch of one's own words that stands in the quotation too: where, in UTF-16 units, and how many words long. */
export interface Borrowed {
  start: number;
  end: number;
  words: number;
}

/** How far one's own words are still the author's. */
export interface Overlap {
  /** Runs of at least `RUN_LIMIT` words, in their order; none of them stands within quotation marks. */
  runs: Borrowed[];
  /** Words of the longest run shared, be it as short as it may. */
  longest: number;
  /** The part of one's own words, those within quotation marks left out, that stands in `runs`: 0 to 1. */
  share: number;
  tooClose: boolean;
}

interface Word {
  folded: string;
  start: number;
  end: number;
}

/** Made when it is first needed, which takes tens of milliseconds. */
let segmenter: Intl.Segmenter | undefined;

/** A text in pieces that end at white space where they can; a segmenter takes time by the square of what it is given at once. */
const PIECES = /[^]{1,2000}(?:\s|$)|[^]{1,2000}/gu;

/** The words of a text, in comparison form, each with where it stands. */
function placedWords(text: string): Word[] {
  const words: Word[] = [];
  segmenter ??= new Intl.Segmenter(undefined, { granularity: 'word' });
  for (const { 0: piece, index: at } of text.matchAll(PIECES))
    for (const { segment, index, isWordLike } of segmenter.segment(piece)) {
      if (!isWordLike) continue;
      const folded = foldWords(segment).join('');
      if (folded) words.push({ folded, start: at + index, end: at + index + segment.length });
    }
  return words;
}

/** Marks that open a quotation, and those that can close it. A straight mark, and an apostrophe's, need more to tell. */
const CLOSING = new Map([
  ['“', '”'],
  ['„', '“”'],
  ['«', '»'],
  ['»', '«'],
  ['"', '"'],
  ['‹', '›'],
  ['‘', '’'],
  ['「', '」'],
  ['『', '』'],
]);

const isLetter = (c: string | undefined): boolean => c !== undefined && /[\p{L}\p{N}]/u.test(c);

/** Where each mark of a text stands, in order, found once. */
function placesOf(text: string, marks: string): number[] {
  const places: number[] = [];
  for (let i = 0; i < text.length; i++)
    // What stands between two letters is an apostrophe and closes nothing.
    if (marks.includes(text[i]!) && !(text[i] === '’' && isLetter(text[i - 1]) && isLetter(text[i + 1])))
      places.push(i);
  return places;
}

/** The stretches of a text within quotation marks, their marks included. A mark that is never closed quotes nothing. */
export function quotedStretches(text: string): { start: number; end: number }[] {
  const closings = new Map([...CLOSING].map(([open, close]) => [open, placesOf(text, close)]));
  const next = new Map([...CLOSING.keys()].map((open) => [open, 0]));
  const found: { start: number; end: number }[] = [];
  for (let i = 0; i < text.length; i++) {
    const places = closings.get(text[i]!);
    if (!places) continue;
    let n = next.get(text[i]!)!;
    while (n < places.length && places[n]! <= i) n++;
    next.set(text[i]!, n);
    const end = places[n];
    if (end === undefined) continue;
    found.push({ start: i, end: end + 1 });
    i = end;
  }
  return found;
}

/** For each of `own`, how many words from it on stand in a row in `theirs`. */
function runsFrom(theirs: Word[], own: Word[]): Int32Array {
  const numbers = new Map<string, number>();
  const numbered = (words: Word[]) =>
    Int32Array.from(words, ({ folded }) => {
      const known = numbers.get(folded) ?? numbers.size;
      numbers.set(folded, known);
      return known;
    });
  const [x, y] = [numbered(theirs), numbered(own)];
  const longest = new Int32Array(y.length);
  let [after, now] = [new Int32Array(y.length + 1), new Int32Array(y.length + 1)];
  for (let i = x.length - 1; i >= 0; i--) {
    for (let j = 0; j < y.length; j++) {
      now[j] = x[i] === y[j] ? after[j + 1]! + 1 : 0;
      if (now[j]! > longest[j]!) longest[j] = now[j]!;
    }
    [after, now] = [now, after];
  }
  return longest;
}

/** Measures how far own words are still the author's. What is quoted in them, within quotation marks, is said to be. */
export function overlap(quotation: string, ownWords: string): Overlap {
  const quoted = quotedStretches(ownWords);
  const own: Word[] = [];
  let at = 0;
  for (const word of placedWords(ownWords)) {
    while (at < quoted.length && quoted[at]!.end <= word.start) at++;
    const within = at < quoted.length && quoted[at]!.start <= word.start;
    // A quoted word is like none of the author's, so that no run goes across it.
    own.push(within ? { ...word, folded: '' } : word);
  }
  const lengths = runsFrom(placedWords(quotation), own);
  const runs: Borrowed[] = [];
  let [longest, taken] = [0, 0];
  for (let j = 0; j < own.length; j++) {
    const words = lengths[j]!;
    longest = Math.max(longest, words);
    if (words < RUN_LIMIT) continue;
    runs.push({ start: own[j]!.start, end: own[j + words - 1]!.end, words });
    taken += words;
    j += words - 1;
  }
  const free = own.filter((word) => word.folded).length;
  return { runs, longest, share: free === 0 ? 0 : taken / free, tooClose: runs.length > 0 };
}
