import { plain } from '../../text';
import { romanise, telling } from '../signature';
import type { Difference } from './differences';

/** A word of a title, and whether it is cut short with a full stop. */
interface Word {
  letters: string;
  short: boolean;
}

/** The title of a container, or the name of an institution, taken apart for telling whether another spelling is the same. */
export interface TitleParts {
  words: Word[];
  subtitle: string;
  /** It is one word in capitals. */
  capitals: string;
}

const SUBTITLE = /\s?[:;]\s|\s[–—]\s/u;

function wordsOf(text: string): Word[] {
  const words: Word[] = [];
  for (const [, letters, stop] of text.matchAll(/([\p{L}\p{M}\p{N}’']+)(\.?)/gu))
    for (const told of telling(romanise(letters!))) words.push({ letters: told, short: stop === '.' });
  return words;
}

/** Takes a title apart; nothing when no word of it tells anything. */
export function partsOfTitle(title: string): TitleParts | undefined {
  const text = plain(title).slice(0, 600).replace(/&/g, ' ');
  const cut = text.search(SUBTITLE);
  const main = cut > 2 ? text.slice(0, cut) : text;
  const words = wordsOf(main).slice(0, 24);
  if (words.length === 0) return undefined;
  const capitals = /^\p{Lu}{2,8}$/u.test(main.trim()) ? words[0]!.letters : '';
  return { words, subtitle: cut > 2 ? telling(romanise(text.slice(cut))).join(' ') : '', capitals };
}

const initials = (words: readonly Word[]): string => words.map((w) => w.letters[0]).join('');

/** What the spellings of a title are found by: its initials; one of a single word by that word. */
export const keyOfTitle = (kind: string, { words }: TitleParts): string =>
  `${kind} ${words.length === 1 ? words[0]!.letters : initials(words)}`;

/**
 * Whether one word abbreviates the other: by leaving out at least two letters of its end, or letters from its midst where
 * the last one stands, or any number before a full stop. Source: the ways of abbreviating of ISO 4, as far as they are
 * common knowledge.
 */
function cutShort(a: Word, b: Word): boolean {
  const [less, more] = a.letters.length < b.letters.length ? [a, b] : [b, a];
  if (less.letters.length === more.letters.length) return false;
  if (more.letters.startsWith(less.letters))
    return less.short || more.letters.length - less.letters.length >= 2;
  if (less.letters.length < 3 && !less.short) return false;
  if (less.letters[0] !== more.letters[0] || less.letters.at(-1) !== more.letters.at(-1)) return false;
  let at = 0;
  for (const c of less.letters) {
    at = more.letters.indexOf(c, at);
    if (at === -1) return false;
    at++;
  }
  return more.letters.length - less.letters.length >= 2;
}

/** How two spellings of a title differ; nothing when they are of two containers. */
export function compareTitles(a: TitleParts, b: TitleParts): Difference[] | undefined {
  for (const [x, y] of [
    [a, b],
    [b, a],
  ] as const)
    if (x.capitals && y.words.length === x.capitals.length && x.capitals === initials(y.words))
      return ['acronym'];
  if (a.words.length !== b.words.length) return undefined;
  const found = new Set<Difference>();
  for (const [i, x] of a.words.entries()) {
    const y = b.words[i]!;
    if (x.letters === y.letters) continue;
    // One word alone is not abbreviated, and tells too little.
    if (a.words.length === 1 || !cutShort(x, y)) return undefined;
    found.add('abbreviated');
  }
  if (a.subtitle !== b.subtitle) {
    if (a.subtitle !== '' && b.subtitle !== '') return undefined;
    found.add('subtitle');
  }
  if (found.size === 0) found.add('marks');
  return [...found];
}

/** How much of a title is written out: the letters of its words, and a little for its subtitle. */
export const completenessOfTitle = ({ words, subtitle, capitals }: TitleParts): number =>
  capitals
    ? 0
    : words.reduce((sum, w) => sum + w.letters.length - (w.short ? 1 : 0), 0) * 2 + (subtitle ? 1 : 0);
