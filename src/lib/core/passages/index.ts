export * from './types';
export { textOf, piecesOf, offsetOf, type Segment, type Piece } from './text-of';
export { anchor, anchorAll, anchorer, describe, sameWords, type Anchoring, type Sought } from './anchor';
export { overlap, RUN_LIMIT, type Overlap } from './overlap';
export { findWords, locatorIn } from './words';
