import { fold, foldWords } from './fold';

/** A stretch of a text around words that were looked for. */
export interface Excerpt {
  /** The stretch in order; `hit` is what was looked for. `…` stands where the text goes on. */
  parts: { text: string; hit: boolean }[];
  /** The text from the first to the last of the words, as it stands. */
  exact: string;
}

const WORD = /[\p{L}\p{N}\p{M}'’ʼ]+/gu;
/** Within how many characters all words are taken to stand together. */
const TOGETHER = 300;

/**
 * Where a person's words stand in a text, compared as searching does: case, diacritics and punctuation aside, each word
 * perhaps the beginning of a longer one. The first place where all stand together, else the first where one stands;
 * `around` characters are kept on each side, whole words. `undefined` when none is there.
 */
export function excerpt(text: string, words: string, around = 110): Excerpt | undefined {
  const wanted = [...new Set(foldWords(words))];
  if (wanted.length === 0) return undefined;
  const folded = new Map<string, string[]>();
  const answers = (word: string) => {
    let found = folded.get(word);
    if (!found) {
      const plain = fold(word);
      found = wanted.filter((w) => plain.startsWith(w));
      folded.set(word, found);
    }
    return found;
  };
  const last = new Map<string, number>();
  let place: { start: number; end: number } | undefined;
  for (const m of text.matchAll(WORD)) {
    const found = answers(m[0]);
    if (found.length === 0) continue;
    const end = m.index + m[0].length;
    place ??= { start: m.index, end };
    for (const word of found) last.set(word, m.index);
    const first = Math.min(...last.values());
    if (last.size === wanted.length && end - first <= TOGETHER) {
      place = { start: first, end };
      break;
    }
  }
  if (!place) return undefined;

  const from = place.start <= around ? 0 : wordEdge(text, place.start - around, 1);
  const to = text.length - place.end <= around ? text.length : wordEdge(text, place.end + around, -1);
  const parts: Excerpt['parts'] = [];
  const add = (piece: string, hit: boolean) => {
    if (piece) parts.push({ text: piece.replace(/\s+/gu, ' '), hit });
  };
  let at = from;
  if (from > 0) add('… ', false);
  for (const m of text.slice(from, to).matchAll(WORD)) {
    if (answers(m[0]).length === 0) continue;
    add(text.slice(at, from + m.index), false);
    add(m[0], true);
    at = from + m.index + m[0].length;
  }
  add(text.slice(at, to), false);
  if (to < text.length) add(' …', false);
  return { parts, exact: text.slice(place.start, place.end) };
}

/** The nearest gap between words at or beyond a place, in a direction; the place itself when a word goes on too long. */
function wordEdge(text: string, at: number, step: 1 | -1): number {
  for (let i = at; i > 0 && i < text.length && Math.abs(i - at) < 30; i += step)
    if (/\s/u.test(step === 1 ? text[i - 1]! : text[i]!)) return i;
  return at;
}
