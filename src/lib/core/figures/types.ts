import { z } from 'zod';
import { tint } from '../passages';
import { nfc } from '../text';

const fraction = z.number().min(0).max(1);

/** Smallest side of a box, as a part of the side it is drawn on. */
export const SMALLEST = 0.005;

/** A box in parts of the width and height of what it is drawn on, from its top left corner: 0 to 1. */
export const box = z
  .strictObject({ x: fraction, y: fraction, width: fraction, height: fraction })
  .refine((b) => b.width >= SMALLEST && b.height >= SMALLEST, { message: 'The box is too small.' })
  .refine((b) => b.x + b.width <= 1.000_001 && b.y + b.height <= 1.000_001, {
    message: 'The box reaches beyond the page.',
  });
export type Box = z.infer<typeof box>;

/** All of what it is drawn on. */
export const WHOLE: Box = { x: 0, y: 0, width: 1, height: 1 };

/** Where a figure is: in a box on a leaf of a document with pages (counted from 1), or on a picture of a page. */
export const figurePlace = z.discriminatedUnion('on', [
  z.strictObject({ on: z.literal('leaf'), leaf: z.number().int().min(1).max(100_000), box }),
  z.strictObject({ on: z.literal('picture'), sha256: z.string().regex(/^[0-9a-f]{64}$/), box }),
]);
export type FigurePlace = z.infer<typeof figurePlace>;

/** A point of a drawing, in parts of the width and height of the picture. */
export const point = z.tuple([fraction, fraction]);
export type Point = z.infer<typeof point>;

const drawn = { id: z.string().min(1).max(40), tint };
/** What is drawn over a figure; it stays a drawing and is never part of the picture. */
export const shape = z.discriminatedUnion('shape', [
  z.strictObject({ ...drawn, shape: z.enum(['box', 'arrow', 'line']), from: point, to: point }),
  z.strictObject({
    ...drawn,
    shape: z.literal('words'),
    at: point,
    text: z.string().trim().min(1).max(500).transform(nfc),
  }),
  z.strictObject({ ...drawn, shape: z.literal('stroke'), points: z.array(point).min(2).max(2_000) }),
]);
export type Shape = z.infer<typeof shape>;

/** Most shapes over one figure. */
export const MOST_SHAPES = 200;

/** What is said of a figure: its number as it is printed (`Figure 3`), what it shows in words, and what is drawn over it. */
export const figureWords = z.strictObject({
  number: z.string().trim().max(60).transform(nfc),
  alt: z.string().trim().max(2_000).transform(nfc),
  drawing: z.array(shape).max(MOST_SHAPES),
});
export type FigureWords = z.infer<typeof figureWords>;

/** A picture that was cut out, as it is kept: its file, and its size in pixels. */
export interface CutOut {
  sha256: string;
  mediaType: string;
  width: number;
  height: number;
}

/** A figure as it is kept. */
export interface Figure extends FigureWords {
  place: FigurePlace;
  image: CutOut;
}
