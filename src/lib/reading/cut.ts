import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { drawingSvg, FACE, type Box, type Shape } from '../core/figures';
import { Unreadable } from './failure';
import { askPdf, checkSides, pdfjs } from './pdf';
import { isOpened, pictureSize } from './sniff';

const require = createRequire(import.meta.url);

/** Pixels to a point where what is cut out is drawn, not a picture: 300 to the inch, common practice for print. */
const DRAWN = 300 / 72;
/** At least and at most as many, whatever its pictures have. */
const [COARSEST, FINEST] = [2, 600 / 72];
/** Most pixels of what is cut out. */
const MOST_CUT = 24_000_000;
/** A picture that takes less of the box than this does not say how fine it is. */
const TELLING = 0.02;

/** A picture cut out, as PNG, and its size in pixels. */
export interface Cut {
  png: Uint8Array;
  width: number;
  height: number;
}

type Matrix = [number, number, number, number, number, number];
const times = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];

/** What is drawn on a page as a picture: where, in points from its top left corner, and its pixels to a point. */
async function picturesOn(page: PDFPageProxy) {
  const { OPS } = await pdfjs();
  const { fnArray, argsArray } = await page.getOperatorList();
  const { transform } = page.getViewport({ scale: 1 });
  const found: { x: number; y: number; width: number; height: number; fine: number }[] = [];
  const stack: Matrix[] = [];
  let now = transform as Matrix;
  const picture = (wide: unknown) => {
    const xs = [now[4], now[4] + now[0], now[4] + now[2], now[4] + now[0] + now[2]];
    const ys = [now[5], now[5] + now[1], now[5] + now[3], now[5] + now[1] + now[3]];
    const across = Math.hypot(now[0], now[1]);
    if (typeof wide !== 'number' || !(across > 0)) return;
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    found.push({ x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y, fine: wide / across });
  };
  for (const [i, fn] of fnArray.entries()) {
    const args = argsArray[i] as unknown[] | null;
    if (fn === OPS.save) stack.push(now);
    else if (fn === OPS.restore || fn === OPS.paintFormXObjectEnd) now = stack.pop() ?? now;
    else if (fn === OPS.transform) now = times(now, args as unknown as Matrix);
    else if (fn === OPS.paintFormXObjectBegin) {
      stack.push(now);
      if (Array.isArray(args?.[0])) now = times(now, args[0] as Matrix);
    } else if (fn === OPS.paintImageXObject) picture(args?.[1]);
    else if (fn === OPS.paintInlineImageXObject || fn === OPS.paintImageMaskXObject)
      picture((args?.[0] as { width?: number } | undefined)?.width);
  }
  return found;
}

/** How many pixels to a point a box of a page is drawn with: as many as the finest picture in it has. */
async function finenessOf(page: PDFPageProxy, at: { x: number; y: number; width: number; height: number }) {
  const overlap = (from: number, length: number, from2: number, length2: number) =>
    Math.max(0, Math.min(from + length, from2 + length2) - Math.max(from, from2));
  const fine = (await picturesOn(page))
    .filter(
      (p) =>
        overlap(p.x, p.width, at.x, at.width) * overlap(p.y, p.height, at.y, at.height) >
        TELLING * at.width * at.height,
    )
    .map((p) => p.fine);
  const wanted = fine.length ? Math.max(...fine) : DRAWN;
  const within = Math.min(FINEST, Math.max(COARSEST, wanted));
  return Math.min(within, Math.sqrt(MOST_CUT / (at.width * at.height)));
}

/**
 * Cuts a box out of a leaf (counted from 1) of the PDF at a path, as fine as the pictures in it are, or at 300 pixels to the
 * inch where it has none. Throws `Unreadable` when the PDF has no such leaf or cannot be drawn.
 */
export const cutLeaf = (path: string, leaf: number, box: Box): Promise<Cut> =>
  askPdf(path, async (doc) => {
    const { createCanvas } = await import('@napi-rs/canvas');
    if (leaf < 1 || leaf > doc.numPages) throw new Unreadable(`The PDF has no page ${leaf}.`);
    const page = await doc.getPage(leaf);
    const natural = page.getViewport({ scale: 1 });
    checkSides(natural);
    const at = {
      x: box.x * natural.width,
      y: box.y * natural.height,
      width: box.width * natural.width,
      height: box.height * natural.height,
    };
    const scale = await finenessOf(page, at);
    const canvas = createCanvas(
      Math.max(1, Math.round(at.width * scale)),
      Math.max(1, Math.round(at.height * scale)),
    );
    await page.render({
      canvas: null,
      canvasContext: canvas.getContext('2d') as unknown as CanvasRenderingContext2D,
      viewport: page.getViewport({ scale, offsetX: -at.x * scale, offsetY: -at.y * scale }),
    }).promise;
    page.cleanup();
    return { png: canvas.toBuffer('image/png'), width: canvas.width, height: canvas.height };
  });

async function opened(bytes: Uint8Array) {
  const size = pictureSize(bytes);
  if (!size || !isOpened(size)) throw new Unreadable('The picture is damaged or too large to be opened.');
  const canvas = await import('@napi-rs/canvas');
  const image = await canvas.loadImage(Buffer.from(bytes)).catch(() => {
    throw new Unreadable('The picture is damaged and cannot be opened.');
  });
  return { image, createCanvas: canvas.createCanvas, loadImage: canvas.loadImage };
}

/** Cuts a box out of a picture, each of its pixels as it is. Throws `Unreadable` when it cannot be opened. */
export async function cutPicture(bytes: Uint8Array, box: Box): Promise<Cut> {
  const { image, createCanvas } = await opened(bytes);
  const [x, y] = [Math.round(box.x * image.width), Math.round(box.y * image.height)];
  const width = Math.max(1, Math.min(image.width - x, Math.round(box.width * image.width)));
  const height = Math.max(1, Math.min(image.height - y, Math.round(box.height * image.height)));
  const canvas = createCanvas(width, height);
  canvas.getContext('2d').drawImage(image, x, y, width, height, 0, 0, width, height);
  return { png: canvas.toBuffer('image/png'), width, height };
}

/** Most pixels of a side of a picture that is written out with its drawing. */
const MOST_SIDE = 2_400;

let faced = false;
/** Makes the face of words in a drawing known to what draws it, in all the scripts it ships with. */
async function loadFace(): Promise<void> {
  if (faced) return;
  faced = true;
  const { GlobalFonts } = await import('@napi-rs/canvas');
  const files = join(dirname(require.resolve('@fontsource-variable/source-serif-4/package.json')), 'files');
  for (const script of ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'])
    GlobalFonts.registerFromPath(join(files, `source-serif-4-${script}-wght-normal.woff2`), FACE);
}

/** A picture with what is drawn over it, as one PNG, for writing it out; what is kept stays as it is. */
export async function withDrawing(bytes: Uint8Array, drawing: readonly Shape[]): Promise<Cut> {
  const { image, createCanvas, loadImage } = await opened(bytes);
  const scale = Math.min(1, MOST_SIDE / Math.max(image.width, image.height));
  const width = Math.max(1, Math.round(image.width * scale));
  const height = Math.max(1, Math.round(image.height * scale));
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0, width, height);
  if (drawing.length) {
    await loadFace();
    const over = await loadImage(Buffer.from(drawingSvg(drawing, { width, height })));
    context.drawImage(over, 0, 0, width, height);
  }
  return { png: canvas.toBuffer('image/png'), width, height };
}
