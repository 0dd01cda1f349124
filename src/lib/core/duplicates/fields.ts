import type { PersonSign, Signature, TitleSign } from './signature';
import { jaroWinkler, sameWord, within } from './strings';

/** How far two titles agree: the same; mistyped; one without its subtitle or given by its translation; in most words. */
export type TitleLevel = 'same' | 'mistyped' | 'shortened' | 'translated' | 'close' | 'different' | 'missing';

export interface TitleMatch {
  level: TitleLevel;
  /** Both have numbers, or one has, that the other lacks, while the words agree: this year's report and last year's. */
  numbersDiffer: boolean;
}

/** How much of two titles must be the same words, of their letters, before words are compared letter by letter. */
const LEAST_SAME = 0.3;

/** Words of `a` that none of `b` is, and the other way round; each word of `b` answers once. */
function unmatched(a: readonly string[], b: readonly string[]): [onlyA: string[], onlyB: string[]] {
  const free = [...b];
  const onlyA: string[] = [];
  for (const word of a) {
    const at = free.indexOf(word);
    if (at === -1) onlyA.push(word);
    else free.splice(at, 1);
  }
  if (onlyA.length === 0 || free.length === 0) return [onlyA, free];
  const rest = onlyA.filter((word) => {
    const at = free.findIndex((other) => sameWord(word, other));
    if (at !== -1) free.splice(at, 1);
    return at === -1;
  });
  return [rest, free];
}

/** How much of the shorter of two lists of words the other has, of its letters. */
function sameLetters(a: readonly string[], b: readonly string[]): number {
  const [shorter, longer] = a.length <= b.length ? [a, b] : [b, a];
  const all = letters(shorter);
  return all === 0 ? 0 : letters(shorter.filter((word) => longer.includes(word))) / all;
}

const letters = (words: readonly string[]) => words.reduce((sum, word) => sum + word.length, 0);

/** How far two titles agree, whatever their order of words, their case, marks and script. */
export function matchTitles(a: TitleSign, b: TitleSign): TitleMatch {
  const at = (level: TitleLevel, numbersDiffer = false): TitleMatch => ({ level, numbersDiffer });
  if (a.whole === '' || b.whole === '') return at('missing');
  if (a.whole === b.whole) return at('same', numbersApart(a.numbers, b.numbers));
  const numbersDiffer = numbersApart(a.numbers, b.numbers);
  if (a.joined === b.joined) return at('same', numbersDiffer);
  for (const [x, y] of [
    [a, b],
    [b, a],
  ] as const)
    if (x.translated && (x.translated === y.whole || x.translated === y.translated)) return at('translated');
  const slipped = within(a.joined, b.joined, a.joined.length > 24 ? 2 : a.joined.length > 7 ? 1 : 0);
  if (!slipped && sameLetters(a.words, b.words) < LEAST_SAME) return at('different', numbersDiffer);
  const [onlyA, onlyB] = unmatched(a.words, b.words);
  if (onlyA.length + onlyB.length === 0 && a.words.length > 0) return at('mistyped', numbersDiffer);
  const [left, right] = [onlyA.join(''), onlyB.join('')];
  if (slipped) {
    const [inA, inB] = unmatched(a.whole.split(' '), b.whole.split(' '));
    // One letter that differs is a slip in a word, and all the difference where it stands for itself: hepatitis A and B.
    if (Math.max(inA.join('').length, inB.join('').length) > 1) return at('mistyped', numbersDiffer);
  }
  const shorter = a.words.length < b.words.length ? a : b;
  const longer = shorter === a ? b : a;
  if (
    longer.main !== longer.whole &&
    (longer.main === shorter.whole || (longer.main.length > 8 && within(longer.main, shorter.whole, 1)))
  )
    return at('shortened', numbersApart(a.parts, b.parts) || (numbersDiffer && shorter.numbers.length > 0));
  const all = letters(a.words) + letters(b.words);
  const agree = all === 0 ? 0 : 1 - (left.length + right.length) / all;
  // Two titles that each have a telling word the other lacks are of two works more often than not.
  const swapped = left.length >= 4 && right.length >= 4;
  if (agree >= (swapped ? 0.86 : 0.72)) return at('close', numbersDiffer);
  return at('different', numbersDiffer);
}

function numbersApart(a: readonly string[], b: readonly string[]): boolean {
  if (a.length === 0 && b.length === 0) return false;
  return a.length !== b.length || a.some((n) => !b.includes(n));
}

/** How far two lists of people agree. */
export type PeopleLevel = 'all' | 'first' | 'some' | 'none' | 'missing';

/** Whether two names can be one person's: initials, order, particles, and a slip in the family name allowed. */
export function samePersonSign(a: PersonSign, b: PersonSign): boolean {
  if (a.institution || b.institution) {
    if (a.words.length === 0 || b.words.length === 0) return false;
    const [onlyA, onlyB] = unmatched(a.words, b.words);
    return onlyA.length + onlyB.length <= (Math.min(a.words.length, b.words.length) > 3 ? 1 : 0);
  }
  const initials = a.given.every((word, i) => {
    const other = b.given[i];
    return other === undefined || word[0] === other[0];
  });
  if (initials && (a.family === b.family || alike(a.family, b.family))) return true;
  // Given and family name in the other order, or in one string.
  if (a.words.length < 2 || b.words.length < 2) return false;
  const [onlyA, onlyB] = unmatched(a.words, b.words);
  return onlyA.length === 0 || onlyB.length === 0
    ? true
    : onlyA.every((w) => onlyB.some((o) => (w.length === 1 || o.length === 1) && w[0] === o[0])) &&
        onlyA.length < a.words.length;
}

/** Family names that differ by a slip or by how much of a double name is given. */
const alike = (a: string, b: string): boolean =>
  (a.length > 4 && b.length > 4 && jaroWinkler(a, b) >= 0.94 && within(a, b, 1)) ||
  (a.length > 3 && b.length > 3 && (a.endsWith(` ${b}`) || b.endsWith(` ${a}`)));

/** How far the creators agree; a list that names some of the other's, the first among them, agrees with it. */
export function matchPeople(a: readonly PersonSign[], b: readonly PersonSign[]): PeopleLevel {
  if (a.length === 0 || b.length === 0) return 'missing';
  const [shorter, longer] = a.length <= b.length ? [a, b] : [b, a];
  const first = samePersonSign(a[0]!, b[0]!);
  const found = shorter.filter((p, i) => {
    const there = longer[i];
    return (there && samePersonSign(p, there)) || longer.some((q) => samePersonSign(p, q));
  }).length;
  if (found === shorter.length && shorter.length === longer.length) return 'all';
  if (found === shorter.length && first) return 'first';
  if (found === shorter.length || (first && found * 2 >= shorter.length)) return 'some';
  return found > 0 ? 'some' : 'none';
}

/** How far two containers agree. */
export type ContainerLevel = 'same' | 'shortened' | 'close' | 'different' | 'missing';

/**
 * Whether one title of a serial abbreviates the other: every word the beginning of the next one, as ISO 4 has it, or its
 * first letter; articles and the like are left out of both.
 */
export function abbreviates(short: readonly string[], whole: readonly string[]): boolean {
  let at = 0;
  for (const word of short) {
    while (at < whole.length && !fits(word, whole[at]!)) at++;
    if (at === whole.length) return false;
    at++;
  }
  return short.length > 0 && short.length * 2 >= whole.length && fits(short[0]!, whole[0]!);
}
const fits = (short: string, whole: string): boolean =>
  whole.startsWith(short) ||
  (short.length > 2 && short[0] === whole[0] && short.length < whole.length && contracted(short, whole));
/** `natl` for `national`: letters in their order, the last one too. */
function contracted(short: string, whole: string): boolean {
  if (short.at(-1) !== whole.at(-1)) return false;
  let at = 0;
  for (const c of short) {
    at = whole.indexOf(c, at);
    if (at === -1) return false;
    at++;
  }
  return true;
}

/** How far the containers agree. */
export function matchContainers(a: Signature, b: Signature): ContainerLevel {
  if (a.container === '' || b.container === '') return 'missing';
  if (a.container === b.container) return 'same';
  const [x, y] = [a.containerWords, b.containerWords];
  if (abbreviates(x, y) || abbreviates(y, x)) return 'shortened';
  const initials = (words: readonly string[]) => words.map((w) => w[0]).join('');
  if (
    (x.length === 1 && x[0]!.length > 2 && x[0] === initials(y)) ||
    (y.length === 1 && y[0]!.length > 2 && y[0] === initials(x))
  )
    return 'shortened';
  const [onlyX, onlyY] = unmatched(x, y);
  const all = letters(x) + letters(y);
  if (all > 0 && letters(onlyX) + letters(onlyY) <= all * 0.3) return 'close';
  // One of them goes on with a subtitle, or tells the meeting in more words.
  if ((onlyX.length === 0 || onlyY.length === 0) && Math.min(x.length, y.length) > 1) return 'close';
  return 'different';
}

/** How far pages agree. */
export type PagesLevel = 'same' | 'first' | 'inside' | 'different' | 'missing';

/** How far the pages agree: all, the first; both are there and differ; or one is missing. */
export function matchPages(a: Signature, b: Signature): PagesLevel {
  if (a.firstPage === '' || b.firstPage === '') return 'missing';
  if (a.firstPage === b.firstPage)
    return a.lastPage === b.lastPage || !a.lastPage || !b.lastPage ? 'same' : 'first';
  const inside = (x: Signature, y: Signature) =>
    x.lastPage === '' &&
    y.lastPage !== '' &&
    Number(x.firstPage) > Number(y.firstPage) &&
    Number(x.firstPage) <= Number(y.lastPage);
  return inside(a, b) || inside(b, a) ? 'inside' : 'different';
}
