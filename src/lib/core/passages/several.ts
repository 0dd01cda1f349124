import { OMISSION } from './quoting';
import type { AnchorState, Selectors } from './types';

/** Most stretches of a text one passage is made of. */
export const MOST_STRETCHES = 10;

/** The words of a passage of one stretch or several, with an omission between them. */
export const wordsOf = (first: Selectors, further: readonly Selectors[]): string =>
  [first, ...further].map(({ quote }) => quote.exact).join(` ${OMISSION} `);

const WORST: readonly AnchorState[] = ['lost', 'changed', 'moved', 'found'];
/** How a passage stands whose stretches stand so: it is lost when one of them is. */
export const worstOf = (states: readonly AnchorState[]): AnchorState =>
  WORST.find((state) => states.includes(state)) ?? 'found';
