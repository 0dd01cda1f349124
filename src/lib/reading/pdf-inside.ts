import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { nfc, squash, withoutControls } from '../core/text';
import { Unreadable } from './failure';
import { askPdf } from './pdf';

/** An entry of a document's own contents (ISO 32000-1, 12.3.3): its title, the leaf it leads to, and how deep it stands. */
export interface ContentsEntry {
  title: string;
  /** Counted from 1; `null` where it leads nowhere in the document. */
  leaf: number | null;
  depth: number;
}

/** A link on a leaf (ISO 32000-1, 12.5.6.5), in points of the leaf as it is drawn: to a leaf of the document, or an address. */
export interface LeafLink {
  x: number;
  y: number;
  width: number;
  height: number;
  leaf?: number;
  address?: string;
}

/** What another reader program marked on a leaf (ISO 32000-1, 12.5.6.10, 12.5.6.4): its words, and what was written beside. */
export interface PdfMark {
  /** Counted from 1. */
  leaf: number;
  /** The words under the mark; none for a note on no words. */
  words: string;
  note: string;
  author: string;
  /** Red, green and blue, 0 to 255. */
  color: [number, number, number] | null;
  /** Whether it is a note set on the page rather than a mark of words. */
  onPage: boolean;
}

/** Most entries, links of a leaf and marks that are read of a document. */
const MOST_ENTRIES = 5_000;
const MOST_LINKS = 500;
const MOST_MARKS = 20_000;
const DEEPEST = 20;

type Destination = string | unknown[] | null | undefined;

/** The leaf (counted from 1) a destination leads to; destinations are named or given (ISO 32000-1, 12.3.2). */
async function leafOf(doc: PDFDocumentProxy, dest: Destination): Promise<number | null> {
  try {
    const given = typeof dest === 'string' ? await doc.getDestination(dest) : dest;
    const page = Array.isArray(given) ? (given[0] as unknown) : undefined;
    if (typeof page === 'number') return page >= 0 && page < doc.numPages ? page + 1 : null;
    if (typeof page === 'object' && page !== null)
      return (await doc.getPageIndex(page as Parameters<PDFDocumentProxy['getPageIndex']>[0])) + 1;
    return null;
  } catch {
    // A destination that leads nowhere is one of a damaged file.
    return null;
  }
}

type Node = NonNullable<Awaited<ReturnType<PDFDocumentProxy['getOutline']>>>[number];

/** The contents of a PDF, in its order. */
export const readContents = (pdf: string | Uint8Array): Promise<ContentsEntry[]> =>
  askPdf(pdf, async (doc) => {
    const entries: ContentsEntry[] = [];
    const walk = async (nodes: Node[], depth: number): Promise<void> => {
      for (const { title, dest, items } of nodes) {
        if (entries.length >= MOST_ENTRIES) return;
        const name = squash(nfc(withoutControls(title))).slice(0, 500);
        if (name) entries.push({ title: name, leaf: await leafOf(doc, dest), depth });
        if (items?.length && depth < DEEPEST) await walk(items as Node[], depth + 1);
      }
    };
    await walk((await doc.getOutline()) ?? [], 0);
    return entries;
  });

async function pageOf(doc: PDFDocumentProxy, leaf: number): Promise<PDFPageProxy> {
  if (!Number.isInteger(leaf) || leaf < 1 || leaf > doc.numPages)
    throw new Unreadable(`The PDF has no page ${leaf}.`);
  return doc.getPage(leaf);
}

interface Annotation {
  subtype?: string;
  rect?: number[];
  url?: string;
  dest?: Destination;
  quadPoints?: ArrayLike<number> | null;
  contentsObj?: { str?: string };
  titleObj?: { str?: string };
  color?: ArrayLike<number> | null;
}

const isWeb = (address: string): boolean => /^https?:\/\//i.test(address) && URL.canParse(address);

/** The links on a leaf (counted from 1) of a PDF. */
export const readLinks = (pdf: string | Uint8Array, leaf: number): Promise<LeafLink[]> =>
  askPdf(pdf, async (doc) => {
    const page = await pageOf(doc, leaf);
    const view = page.getViewport({ scale: 1 });
    const links: LeafLink[] = [];
    for (const { subtype, rect, url, dest } of (await page.getAnnotations()) as Annotation[]) {
      if (subtype !== 'Link' || rect?.length !== 4 || links.length >= MOST_LINKS) continue;
      const [x1, y1, x2, y2] = view.convertToViewportRectangle(rect) as [number, number, number, number];
      const to = url && isWeb(url) ? { address: url } : { leaf: (await leafOf(doc, dest)) ?? undefined };
      if (!('address' in to) && to.leaf === undefined) continue;
      links.push({
        ...{ x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) },
        ...(to as { leaf: number }),
      });
    }
    page.cleanup();
    return links;
  });

interface Box {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** The boxes of quadrilaterals: eight numbers each, in whatever order their corners are given, as writers differ in it. */
function boxesOf(quads: ArrayLike<number>): Box[] {
  const boxes: Box[] = [];
  for (let i = 0; i + 7 < quads.length; i += 8) {
    const xs = [quads[i]!, quads[i + 2]!, quads[i + 4]!, quads[i + 6]!];
    const ys = [quads[i + 1]!, quads[i + 3]!, quads[i + 5]!, quads[i + 7]!];
    boxes.push({
      left: Math.min(...xs),
      right: Math.max(...xs),
      bottom: Math.min(...ys),
      top: Math.max(...ys),
    });
  }
  return boxes;
}

interface Item {
  str: string;
  transform: number[];
  width: number;
  height: number;
  hasEOL: boolean;
}

/** The part of a run of text that lies within the sides of a box, whole characters of it that are at least half within. */
function within({ str, transform, width }: Item, { left, right }: Box): string {
  const start = transform[4]!;
  if (width <= 0 || str.length === 0) return '';
  const each = width / str.length;
  let out = '';
  for (let i = 0; i < str.length; i++) {
    const middle = start + (i + 0.5) * each;
    if (middle >= left && middle <= right) out += str[i]!;
  }
  return out;
}

/** The words under boxes, line by line, as the document's text has them. */
function wordsUnder(boxes: Box[], items: Item[]): string {
  const lines: string[] = [];
  for (const box of boxes) {
    let line = '';
    for (const item of items) {
      // The middle of the small letters of a line decides whether it is the one that is marked.
      const middle = item.transform[5]! + item.height * 0.3;
      if (middle < box.bottom || middle > box.top) continue;
      line += within(item, box);
    }
    if (line.trim()) lines.push(line.trim());
  }
  return squash(nfc(withoutControls(lines.join(' '))));
}

const MARKED = new Set(['Highlight', 'Underline', 'Squiggly', 'StrikeOut']);
const NOTED = new Set(['Text', 'FreeText']);

/** What other reader programs marked in a PDF, in the order of its leaves. */
export const readMarks = (pdf: string | Uint8Array): Promise<PdfMark[]> =>
  askPdf(pdf, async (doc) => {
    const marks: PdfMark[] = [];
    for (let leaf = 1; leaf <= doc.numPages && marks.length < MOST_MARKS; leaf++) {
      const page = await doc.getPage(leaf);
      const found = ((await page.getAnnotations()) as Annotation[]).filter(
        ({ subtype = '' }) => MARKED.has(subtype) || NOTED.has(subtype),
      );
      const items = found.length
        ? ((await page.getTextContent()).items as Item[]).filter((i) => 'str' in i)
        : [];
      for (const { subtype = '', quadPoints, contentsObj, titleObj, color } of found) {
        const words = quadPoints && MARKED.has(subtype) ? wordsUnder(boxesOf(quadPoints), items) : '';
        const note = nfc(withoutControls(contentsObj?.str ?? ''))
          .trim()
          .slice(0, 20_000);
        if (!words && !note) continue;
        marks.push({
          leaf,
          words,
          note,
          author: squash(nfc(withoutControls(titleObj?.str ?? ''))).slice(0, 200),
          color: color && color.length === 3 ? [color[0]!, color[1]!, color[2]!] : null,
          onPage: NOTED.has(subtype),
        });
      }
      page.cleanup();
    }
    return marks;
  });
