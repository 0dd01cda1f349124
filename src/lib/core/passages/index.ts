export * from './types';
export { textOf, piecesOf, offsetOf, type Segment, type Piece } from './text-of';
export { anchor, anchorAll, anchorer, describe, sameWords, type Anchoring, type Sought } from './anchor';
export { overlap, quotedStretches, RUN_LIMIT, type Borrowed, type Overlap } from './overlap';
export { MOST_STRETCHES, wordsOf, worstOf } from './several';
export { quotingChanges, OMISSION, type QuotingChange } from './quoting';
export { finder, MOST_HITS, type Stretch } from './finding';
export {
  fragmentOfStint,
  locatorOfStint,
  secondsOf,
  stintOf,
  stintOfFragment,
  timeText,
  type Stint,
} from './times';
export { findWords, leavesIn, locatorIn, type LeafText } from './words';
