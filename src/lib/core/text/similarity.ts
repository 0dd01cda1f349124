import { foldWords } from './fold';

/** Sørensen–Dice coefficient over character pairs of two texts: 1 the same, 0 nothing shared. */
export function similarity(a: string, b: string): number {
  if (a === b) return 1;
  if (a.length < 2 || b.length < 2) return 0;
  const pairs = new Map<string, number>();
  for (let i = 0; i < a.length - 1; i++) {
    const pair = a.slice(i, i + 2);
    pairs.set(pair, (pairs.get(pair) ?? 0) + 1);
  }
  let shared = 0;
  for (let i = 0; i < b.length - 1; i++) {
    const pair = b.slice(i, i + 2);
    const left = pairs.get(pair) ?? 0;
    if (left > 0) {
      shared++;
      pairs.set(pair, left - 1);
    }
  }
  return (2 * shared) / (a.length + b.length - 2);
}

/** The words of a text in comparison form. */
export function wordsOf(text: string): string[] {
  return foldWords(text);
}

/** The longest run of consecutive words two texts share; `start` is its index among the second text's words. */
export interface SharedRun {
  length: number;
  start: number;
}

/** Finds the longest run of words, in order and without gaps, that `b` takes from `a`. */
export function longestSharedRun(a: string[], b: string[]): SharedRun {
  let best: SharedRun = { length: 0, start: 0 };
  // Words as numbers, which compare faster; and how long the run is that ends at each place of `b`, one word of `a` ago.
  const numbers = new Map<string, number>();
  const numbered = (words: string[]) =>
    Int32Array.from(words, (word) => {
      const known = numbers.get(word) ?? numbers.size;
      numbers.set(word, known);
      return known;
    });
  const [x, y] = [numbered(a), numbered(b)];
  let [before, now] = [new Int32Array(y.length + 1), new Int32Array(y.length + 1)];
  for (const word of x) {
    for (let j = 0; j < y.length; j++) {
      const length = y[j] === word ? before[j]! + 1 : 0;
      now[j + 1] = length;
      if (length > best.length) best = { length, start: j + 1 - length };
    }
    [before, now] = [now, before];
  }
  return best;
}
