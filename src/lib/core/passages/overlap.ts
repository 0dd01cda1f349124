import { longestSharedRun, wordsOf } from '../text';

/** How many words in a row one's own words may share with the author's before it counts as copying; common practice. */
export const RUN_LIMIT = 5;

/** The longest run of words that own words share with the quotation. `share` is its part of the own words, 0 to 1. */
export interface Overlap {
  run: number;
  words: string;
  share: number;
  tooClose: boolean;
}

/** Measures how far own words are still the author's. */
export function overlap(quotation: string, ownWords: string): Overlap {
  const own = wordsOf(ownWords);
  const shared = longestSharedRun(wordsOf(quotation), own);
  return {
    run: shared.length,
    words: own.slice(shared.start, shared.start + shared.length).join(' '),
    share: own.length === 0 ? 0 : shared.length / own.length,
    tooClose: shared.length >= RUN_LIMIT,
  };
}
