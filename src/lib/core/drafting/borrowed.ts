import { quotedStretches } from '../passages';
import { fold } from '../text';
import { blocksIn, inlinesIn, type Block, type DraftPart, type Inline } from './document';
import { readPart } from './reading';

/**
 * From how many words in a row that stand in a document too a draft is told of. Common practice, which says six to ten; one’s own
 * words beside the very passage they are of are held to fewer.
 */
export const BORROWED_WORDS = 8;

/** How many places of a draft that begin with the same words are held against a document: a text that repeats itself has many. */
const MOST_ALIKE = 8;
/** From which part of a run on a document has it nearly all. */
const NEARLY_ALL = 0.8;
/** How many documents are named beside the one that has the most of a run. */
const MOST_OTHERS = 3;

/** Words of a part of a draft that are neither quoted nor set apart, and the works that are cited in it. */
export interface OwnText {
  part: string;
  text: string;
  works: string[];
}

/** Words of a text as numbers, equal where the words fold alike, each with where it stands, in UTF-16 units. */
interface Numbered {
  hashes: number[];
  starts: number[];
  ends: number[];
}

/** What a character is in a word: its folded form, by itself, nothing that counts, or an end. */
type Sign = { hashes: number[]; alone: boolean } | 'nothing' | 'end';
const signs = new Map<number, Sign>();
/** Scripts that put no blanks between words: each letter is one. */
const ALONE = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u;

function signOf(code: number): Sign {
  let sign = signs.get(code);
  if (sign === undefined) {
    const letter = String.fromCodePoint(code);
    const folded = fold(letter).replace(/ /g, '');
    if (folded)
      sign = { hashes: Array.from(folded, (c) => c.codePointAt(0)!), alone: ALONE.test(letter) };
    // A soft hyphen, and what is written over or between the letters of a word.
    else sign = /[\p{M}'’ʼ\u00ad]/u.test(letter) ? 'nothing' : 'end';
    signs.set(code, sign);
  }
  return sign;
} // prettier-ignore

/** A hash of 32 bits, FNV-1a: https://datatracker.ietf.org/doc/draft-eastlake-fnv/ (values from memory). */
const BASIS = 0x811c9dc5 | 0;
const mix = (hash: number, value: number): number => Math.imul(hash ^ value, 0x01000193);

function numbered(text: string): Numbered {
  const words: Numbered = { hashes: [], starts: [], ends: [] };
  let hash = BASIS;
  let start = -1;
  const end = (at: number) => {
    if (start === -1) return;
    words.hashes.push(hash);
    words.starts.push(start);
    words.ends.push(at);
    hash = BASIS;
    start = -1;
  };
  for (let i = 0; i < text.length; i++) {
    const at = i;
    const code = text.codePointAt(i)!;
    if (code > 0xffff) i++;
    const sign = signOf(code);
    if (sign === 'nothing') continue;
    if (sign === 'end') {
      end(at);
      continue;
    }
    if (sign.alone) end(at);
    if (start === -1) start = at;
    for (const value of sign.hashes) hash = mix(hash, value);
    if (sign.alone) end(i + 1);
  }
  end(text.length);
  return words;
}

/** What no words run across: the writer’s own words end here, and others begin. */
const EDGE = '\u2028';

/** The lines of a block that are the writer’s own, what is quoted by a mark left out; footnotes are lines of their own. */
function* ownLines(block: Block): Generator<string> {
  // What is set apart is quoted.
  if (block.type === 'blockquote' || block.type === 'codeBlock') return;
  const content = inlinesIn(block);
  if (content.length) yield* ownIn(content);
  for (const one of blocksIn(block)) yield* ownLines(one);
}

function* ownIn(content: readonly Inline[]): Generator<string> {
  let line = '';
  for (const one of content) {
    if (one.type === 'text') {
      const quoted = one.marks?.some((m) => m.type === 'passage' && m.attrs.as === 'quotation');
      line += quoted ? EDGE : one.text;
    } else if (one.type === 'footnote') yield* ownIn(one.attrs.content);
    else line += ' ';
  }
  yield line;
}

/** The words of a draft that are said to be the writer’s: all but what stands in quotation marks, is set apart, or is code. */
export function ownTexts(parts: readonly DraftPart[]): OwnText[] {
  return parts.flatMap((part) => {
    const works = [...new Set(readPart(part).met.flatMap((m) => (m.what === 'cite' ? m.works.map((w) => w.id) : [])))];
    const pieces: string[] = [];
    for (const line of ownLines(part.content)) {
      let at = 0;
      for (const { start, end } of quotedStretches(line)) {
        pieces.push(line.slice(at, start));
        at = end;
      }
      pieces.push(line.slice(at));
    }
    return pieces
      .flatMap((piece) => piece.split(EDGE))
      .filter((text) => text.trim() !== '')
      .map((text) => ({ part: part.id, text, works }));
  });
} // prettier-ignore

/** The writer’s own words, ready to be held against documents. */
export interface OwnIndex {
  texts: readonly OwnText[];
  /** For each word, which text it is of; between two texts stands a word that is like no other. */
  of: number[];
  words: Numbered;
  /** Where words begin that are the first of a run, by the hash of that run. */
  begins: Map<number, number[]>;
}

/** The hash of a run from a word on. */
function runHash(hashes: readonly number[], from: number): number {
  let hash = BASIS;
  for (let k = 0; k < BORROWED_WORDS; k++) hash = mix(hash, hashes[from + k]!);
  return hash;
}

/** Makes the words of a draft ready. */
export function indexOwn(texts: readonly OwnText[]): OwnIndex {
  const index: OwnIndex = { texts, of: [], words: { hashes: [], starts: [], ends: [] }, begins: new Map() };
  texts.forEach(({ text }, t) => {
    const { hashes, starts, ends } = numbered(text);
    const before = index.of.length;
    for (let i = 0; i < hashes.length; i++) {
      index.words.hashes.push(hashes[i]!);
      index.words.starts.push(starts[i]!);
      index.words.ends.push(ends[i]!);
      index.of.push(t);
      if (i + BORROWED_WORDS > hashes.length) continue;
      const hash = runHash(hashes, i);
      const there = index.begins.get(hash);
      if (!there) index.begins.set(hash, [before + i]);
      else if (there.length < MOST_ALIKE) there.push(before + i);
    }
  });
  return index;
}

/** A run of words of a draft that stands in a document: from which word on, how many, and where in the document. */
export interface BorrowedRun {
  from: number;
  words: number;
  /** In UTF-16 units of the document’s text. */
  start: number;
  end: number;
}

/**
 * The runs of a draft’s own words, `BORROWED_WORDS` at least, that stand in a text too, each as long as it goes. Case, marks over
 * letters, punctuation and breaks of lines tell nothing.
 */
export function borrowedFrom(index: OwnIndex, text: string): BorrowedRun[] {
  const { hashes: own } = index.words;
  const { hashes, starts, ends } = numbered(text);
  const found: BorrowedRun[] = [];
  // Within a run that was found, only other texts of the draft are looked at, each once: else a text that repeats itself would
  // be held against itself at every word.
  let within = 0;
  const seen = new Set<number>();
  for (let j = 0; j + BORROWED_WORDS <= hashes.length; j++) {
    if (j >= within) seen.clear();
    for (const from of index.begins.get(runHash(hashes, j)) ?? []) {
      const of = index.of[from]!;
      if (j < within && seen.has(of)) continue;
      let words = 0;
      while (
        j + words < hashes.length &&
        own[from + words] === hashes[j + words] &&
        index.of[from + words] === of
      )
        words++;
      // Two runs may have one hash and not the same words.
      if (words < BORROWED_WORDS) continue;
      seen.add(of);
      within = Math.max(within, j + words);
      found.push({ from, words, start: starts[j]!, end: ends[j + words - 1]! });
    }
  }
  return found;
}

/** A run of words of a draft that stands in documents. */
export interface Borrowing {
  part: string;
  /** The words as the draft has them, and how many they are. */
  text: string;
  words: number;
  /** Where the words stand in the document that has the most of them. */
  document: string;
  start: number;
  end: number;
  /** Other documents that have all of them or nearly so, a few. */
  others: string[];
}

/** What was found in documents, as it stands in the draft: of runs that lie within others only the longest is told. */
export function borrowings(
  { texts, of, words: { starts, ends } }: OwnIndex,
  found: readonly { document: string; runs: readonly BorrowedRun[] }[],
): Borrowing[] {
  const all = found
    .flatMap(({ document, runs }) => runs.map((run) => ({ document, ...run })))
    .sort((a, b) => b.words - a.words || a.from - b.from);
  const told = new Map<Borrowing, number>();
  const covered: (Borrowing | undefined)[] = [];
  for (const { document, from, words, start, end } of all) {
    const [one, other] = [covered[from], covered[from + words - 1]];
    if (one && one === other) {
      const nearlyAll = words >= NEARLY_ALL * one.words;
      if (one.document !== document && nearlyAll && one.others.length < MOST_OTHERS && !one.others.includes(document))
        one.others.push(document);
      continue;
    }
    const { part, text } = texts[of[from]!]!;
    const borrowing: Borrowing = { part, text: text.slice(starts[from], ends[from + words - 1]), words, document, start, end, others: [] };
    told.set(borrowing, from);
    for (let i = from; i < from + words; i++) covered[i] ??= borrowing;
  }
  return [...told].sort(([, a], [, b]) => a - b).map(([borrowing]) => borrowing);
} // prettier-ignore
