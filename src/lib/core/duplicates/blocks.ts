import type { Signature } from './signature';
import { hash32 } from './strings';

/** Fewer letters tell nothing: a word as a key has at least so many. */
const SHORTEST = 4;

/** The words a title is looked up by: its longest, which are its rarest more often than not. */
const longest = (words: readonly string[], most: number): string[] =>
  [...new Set(words)]
    .filter((w) => w.length >= SHORTEST)
    .sort((x, y) => y.length - x.length || (x < y ? -1 : 1))
    .slice(0, most)
    .sort();

/** All choices of `n` of some words, each in order. */
function choices(words: readonly string[], n: number): string[] {
  if (n === 0) return [''];
  return words.flatMap((word, i) => choices(words.slice(i + 1), n - 1).map((rest) => `${word} ${rest}`));
}

/**
 * The keys a record is looked up by, as 32-bit numbers; two records are compared when they share one that few
 * have, or several that many have: a title of a word or two, which hundreds of pieces share, is not enough alone.
 *
 * - identifiers: DOI, ISBNs, PubMed and arXiv numbers, address;
 * - three of the four longest words of the title (any order; one of them may be mistyped), of its main part, and of its
 *   translation;
 * - first author with two of the words, or with the first letters of the title and the year (this and the next);
 * - volume, first page and first author, or a word of the title;
 * - container, volume and first page.
 */
export function blocksOf(s: Signature): number[] {
  const keys: string[] = [];
  if (s.doi) keys.push(`doi ${s.doi}`);
  for (const isbn of s.isbns) keys.push(`isbn ${isbn}`);
  if (s.pmid) keys.push(`pmid ${s.pmid}`);
  if (s.arxiv) keys.push(`arxiv ${s.arxiv}`);
  if (s.address) keys.push(`address ${s.address}`);
  const { whole, main, words, translated } = s.title;
  const first = s.people[0];
  const family = first?.family.split(' ').at(-1) ?? '';
  const top = longest(words, 4);
  const beginnings = main === whole ? [top] : [top, longest(main.split(' '), 4)];
  if (translated) beginnings.push(longest(translated.split(' '), 4));
  for (const some of beginnings) {
    for (const three of choices(some, 3)) keys.push(`title ${three}`);
    if (some.length > 0 && some.length < 3 && s.year !== null) keys.push(`title ${some.join(' ')} ${s.year}`);
    if (family)
      for (const two of choices(some, Math.min(2, some.length || 1))) keys.push(`by ${family} ${two}`);
  }
  // Scripts without blanks between words, and titles of short ones.
  if (top.length < 3 && whole.length > 0) {
    const year = s.year ?? '';
    keys.push(`whole ${whole.replace(/ /g, '')}`, `whole ${whole.replace(/ /g, '')} ${year}`);
    if (family) keys.push(`whole ${whole.replace(/ /g, '')} by ${family}`);
    if (s.volume) keys.push(`whole ${whole} in ${s.volume} ${s.issue}`);
  }
  if (family && s.year !== null)
    for (const year of [s.year, s.year + 1]) keys.push(`when ${family} ${year} ${whole.slice(0, 3)}`);
  if (s.firstPage) {
    if (s.volume) {
      if (family) keys.push(`page ${s.volume} ${s.firstPage} ${family}`);
      for (const word of longest(words, 2)) keys.push(`page ${s.volume} ${s.firstPage} ${word}`);
      for (const word of s.containerWords.slice(0, 1))
        keys.push(`page ${s.volume} ${s.firstPage} in ${word.slice(0, 3)}`);
    } else if (s.year !== null && family) keys.push(`page ${s.year} ${s.firstPage} ${family}`);
  }
  return [...new Set(keys.map(hash32))];
}

/**
 * The keys of parts and wholes: what a record is found by, and what it looks for. A chapter is found by, and a book looks
 * for, "a part of this"; the other way round for "the whole of this". So the chapters of one book are not compared with one
 * another for being in it.
 */
export function holdings(s: Signature): { found: number[]; seeks: number[] } {
  const isPart = s.family === 'chapter' || s.family === 'paper';
  if (!isPart && s.family !== 'book') return { found: [], seeks: [] };
  const words = longest(isPart ? s.containerWords : s.title.words, 4);
  const threes = words.length === 0 ? [] : choices(words, Math.min(3, words.length));
  const part = threes.map((three) => hash32(`part of ${three} ${s.year ?? ''}`));
  const whole = threes.map((three) => hash32(`whole of ${three} ${s.year ?? ''}`));
  return isPart ? { found: part, seeks: whole } : { found: whole, seeks: part };
}
