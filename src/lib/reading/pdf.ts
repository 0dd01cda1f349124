import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { DocumentData, Leaf, Run } from '../core/documents';
import { nfc, withoutControls } from '../core/text';
import { Unreadable } from './failure';
import { LONGEST_SIDE, MOST_PIXELS } from './sniff';

const require = createRequire(import.meta.url);
const home = dirname(require.resolve('pdfjs-dist/package.json'));

/** Most leaves of a PDF whose text is read. */
export const MOST_LEAVES = 2_000;

type Pdfjs = typeof import('pdfjs-dist/legacy/build/pdf.mjs');
let loaded: Promise<Pdfjs> | undefined;

/** The PDF library; loading it takes a moment, so it is loaded when the first PDF comes. */
export function pdfjs(): Promise<Pdfjs> {
  loaded ??= (async () => {
    const { DOMMatrix, ImageData, Path2D } = await import('@napi-rs/canvas');
    Object.assign(globalThis, { DOMMatrix, ImageData, Path2D });
    return import('pdfjs-dist/legacy/build/pdf.mjs');
  })();
  return loaded;
}

/** Sides of a page, in points, beyond which it is no page: 200 inches, the largest one of PDF 1.7 (ISO 32000-1, annex C). */
const LONGEST_PAGE = 14_400;

/** Refuses a file whose pictures are declared larger than any that is opened; a stream's dictionary is never packed. */
function checkPictures(bytes: Uint8Array): void {
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1');
  for (const [, side] of text.matchAll(/\/(?:Width|Height)[ \r\n]{1,8}(\d{5,15})\b/g))
    if (Number(side) > LONGEST_SIDE)
      throw new Unreadable(
        `The PDF holds a picture of ${Number(side).toLocaleString('en')} pixels a side; at most ${LONGEST_SIDE.toLocaleString('en')} are opened.`,
      );
}

async function open(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  const { getDocument, VerbosityLevel } = await pdfjs();
  const fonts = join(home, 'standard_fonts/');
  checkPictures(bytes);
  try {
    return await getDocument({
      data: new Uint8Array(bytes),
      standardFontDataUrl: existsSync(fonts) ? fonts : undefined,
      cMapUrl: join(home, 'cmaps/'),
      cMapPacked: true,
      wasmUrl: join(home, 'wasm/'),
      disableFontFace: true,
      useSystemFonts: false,
      isEvalSupported: false,
      verbosity: VerbosityLevel.ERRORS,
      maxImageSize: MOST_PIXELS,
    }).promise;
  } catch (error) {
    const { name, message } = error as Error;
    if (name === 'PasswordException')
      throw new Unreadable('The PDF is locked with a password. Save a copy without it and drop that.');
    throw new Unreadable(`The PDF is damaged and cannot be opened (${message.replace(/\.$/, '')}).`);
  }
}

/** What is in a PDF. `scanned` are the indexes of leaves that hold a picture and next to no text. */
export interface PdfText {
  leaves: Leaf[];
  data: DocumentData;
  labels: string[] | null;
  scanned: number[];
}

const texts = (value: unknown): string | string[] | undefined =>
  typeof value === 'string'
    ? value
    : Array.isArray(value)
      ? value.filter((v): v is string => typeof v === 'string')
      : undefined;

/** Reads the text of a PDF, leaf by leaf, with its places. Throws `Unreadable` when it cannot be opened. */
export async function readPdfText(bytes: Uint8Array): Promise<PdfText> {
  const doc = await open(bytes);
  try {
    return await textOfDocument(doc);
  } catch (error) {
    throw damaged(error);
  } finally {
    await doc.loadingTask.destroy();
  }
}

/** What a PDF that opens says of itself later on, in words. */
const damaged = (error: unknown): Unreadable =>
  error instanceof Unreadable
    ? error
    : new Unreadable(
        `The PDF is damaged and cannot be read (${(error as Error).message.replace(/\.$/, '')}).`,
      );

async function textOfDocument(doc: PDFDocumentProxy): Promise<PdfText> {
  if (doc.numPages < 1) throw new Unreadable('The PDF has no pages.');
  if (doc.numPages > MOST_LEAVES)
    throw new Unreadable(
      `The PDF has ${doc.numPages.toLocaleString('en')} pages; at most ${MOST_LEAVES.toLocaleString('en')} are read.`,
    );
  const meta = await doc.getMetadata().catch(() => undefined);
  const info: Record<string, string> = {};
  for (const [key, value] of Object.entries({
    ...(meta?.info as object),
    ...((meta?.info as { Custom?: object })?.Custom ?? {}),
  }))
    if (typeof value === 'string') info[key] = nfc(value);
  const xmp: DocumentData['xmp'] = {};
  for (const [key, value] of (meta?.metadata as Iterable<[string, unknown]> | undefined) ?? []) {
    const text = texts(value);
    if (text !== undefined) xmp[key.toLowerCase()] = text;
  }
  const leaves: Leaf[] = [];
  const scanned: number[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const view = page.getViewport({ scale: 1 });
    const content = await page.getTextContent();
    const runs: Run[] = [];
    for (const item of content.items) {
      if (!('str' in item) || item.str === '') continue;
      const [a, b, , , x, y] = item.transform as [number, number, number, number, number, number];
      const [left, base] = view.convertToViewportPoint(x, y) as [number, number];
      const size = item.height || Math.hypot(a, b) || 10;
      // Text set at an angle (stamps along the margin) is no line of the page.
      if (Math.abs(b) > Math.abs(a) * 0.2 && view.rotation === 0) continue;
      runs.push({ text: nfc(withoutControls(item.str)), x: left, y: base, width: item.width, size });
    }
    leaves.push({ width: view.width, height: view.height, runs });
    if (runs.reduce((sum, r) => sum + r.text.trim().length, 0) < 12 && (await hasPicture(page)))
      scanned.push(n - 1);
    page.cleanup();
  }
  const labels = await doc.getPageLabels().catch(() => null);
  return { leaves, data: { info, xmp }, labels, scanned };
}

async function hasPicture(page: Awaited<ReturnType<PDFDocumentProxy['getPage']>>): Promise<boolean> {
  const { OPS } = await pdfjs();
  const { fnArray } = await page.getOperatorList();
  return fnArray.some(
    (f) =>
      f === OPS.paintImageXObject || f === OPS.paintInlineImageXObject || f === OPS.paintImageMaskXObject,
  );
}

/** Refuses a page larger than any is. */
export function checkSides({ width, height }: { width: number; height: number }): void {
  const odd = (side: number) => !(side >= 1 && side <= LONGEST_PAGE);
  if (odd(width) || odd(height))
    throw new Unreadable(
      `The page is ${Math.round(width).toLocaleString('en')} × ${Math.round(height).toLocaleString('en')} points; at most ${LONGEST_PAGE.toLocaleString('en')} a side are drawn.`,
    );
}

/** The PDF that was last asked of: leaves of one are asked for one after the other. */
let held: { path: string; doc: PDFDocumentProxy } | undefined;

async function letGo(): Promise<void> {
  const last = held;
  held = undefined;
  await last?.doc.loadingTask.destroy();
}

/**
 * Asks something of a PDF, given by its bytes or where it is. A file is read once for what is asked of it one after the
 * other. Throws `Unreadable` when it cannot be opened or read.
 */
export async function askPdf<T>(
  pdf: string | Uint8Array,
  ask: (doc: PDFDocumentProxy) => Promise<T>,
): Promise<T> {
  const path = typeof pdf === 'string' ? pdf : '';
  if (!path || held?.path !== path) {
    await letGo();
    held = { path, doc: await open(typeof pdf === 'string' ? await readFile(pdf) : pdf) };
  }
  try {
    return await ask(held.doc);
  } catch (error) {
    await letGo();
    throw damaged(error);
  }
}

/** Draws one leaf (counted from 1) of a PDF, given by its bytes or where it is, as a PNG, `width` pixels wide at most 4,000. */
export const drawLeaf = (pdf: string | Uint8Array, leaf: number, width: number): Promise<Buffer> =>
  askPdf(pdf, (doc) => drawnLeaf(doc, leaf, width));

async function drawnLeaf(doc: PDFDocumentProxy, leaf: number, width: number): Promise<Buffer> {
  const { createCanvas } = await import('@napi-rs/canvas');
  if (leaf < 1 || leaf > doc.numPages) throw new Unreadable(`The PDF has no page ${leaf}.`);
  const page = await doc.getPage(leaf);
  const natural = page.getViewport({ scale: 1 });
  checkSides(natural);
  const wide = Math.min(width, 4_000, Math.floor(Math.sqrt(16_000_000 * (natural.width / natural.height))));
  const viewport = page.getViewport({ scale: wide / natural.width });
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
  await page.render({
    canvas: null,
    canvasContext: canvas.getContext('2d') as unknown as CanvasRenderingContext2D,
    viewport,
  }).promise;
  page.cleanup();
  return canvas.toBuffer('image/png');
}
