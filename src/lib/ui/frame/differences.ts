import { diffChars, diffWordsWithSpace } from 'diff';

/** A stretch of a text, and whether the other text lacks it. */
export interface Part {
  text: string;
  differs: boolean;
}

/** Longer texts are compared by their words: letter by letter they look alike everywhere. */
const LONG = 400;

/** The parts of `mine` that are and are not in `other`; by whole words where that is asked, and in long texts. */
export function parts(mine: string, other: string, byWords = false): Part[] {
  if (mine === other || other === '') return [{ text: mine, differs: false }];
  const changes = byWords || Math.max(mine.length, other.length) > LONG ? diffWordsWithSpace : diffChars;
  return changes(other, mine)
    .filter((change) => !change.removed)
    .map(({ value, added }) => ({ text: value, differs: added }));
}
