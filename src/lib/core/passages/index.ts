export * from './types';
export { textOf, piecesOf, offsetOf, type Segment, type Piece } from './text-of';
export { anchor, describe, findWords, locatorIn, type Anchoring } from './anchor';
export { overlap, RUN_LIMIT, type Overlap } from './overlap';
