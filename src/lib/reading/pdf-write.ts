import {
  PDFArray,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFString,
  type PDFContext,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';
import { JSDOM } from 'jsdom';
import type { PageViewport } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { piecesOf, textOf } from '../core/passages';
import { withoutControls } from '../core/text';
import { Unreadable } from './failure';
import { askPdf } from './pdf';

/** A passage to be marked in a PDF: its words, by UTF-16 offsets of the text of the reading page, or a box on a leaf. */
export interface MarkToWrite {
  id: string;
  on: { start: number; end: number } | FigureBox;
  note: string;
  author: string;
  /** Red, green and blue, 0 to 1. */
  color: [number, number, number];
  /** UTC, ISO 8601. */
  added: string;
}

/** A box on a leaf, from 1, in parts of its width and height as it is drawn. */
interface FigureBox {
  leaf: number;
  box: { x: number; y: number; width: number; height: number };
}

/** A box of a leaf as it is drawn, in points, from its left upper corner. */
export interface Box {
  leaf: number;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** How far a marked line reaches above and below its base line, of the size of its letters; common practice. */
const [ASCENT, DESCENT] = [0.82, 0.24];

/** The boxes of stretches of a reading page's text: one for each line they touch, as wide as the part of it they hold. */
export function boxesOf(html: string, stretches: readonly { start: number; end: number }[]): Box[][] {
  const dom = new JSDOM(`<body>${html}</body>`);
  const { segments } = textOf(dom.window.document.body);
  const boxes = stretches.map(({ start, end }) =>
    piecesOf(segments, start, end).flatMap(({ node, from, to }): Box[] => {
      const line = node.parentElement?.closest<HTMLElement>('.line');
      const leaf = Number(node.parentElement?.closest<HTMLElement>('.leaf')?.dataset.leaf);
      if (!line || !leaf) return [];
      const [x, y, w, s] = ['x', 'y', 'w', 's'].map((name) => Number(line.dataset[name])) as [
        number,
        number,
        number,
        number,
      ];
      const each = w / Math.max(1, node.data.length);
      return [
        { leaf, left: x + from * each, right: x + to * each, top: y - s * ASCENT, bottom: y + s * DESCENT },
      ];
    }),
  );
  dom.window.close();
  return boxes;
}

/** A time as PDF has it (ISO 32000-1, 7.9.4). */
const dateOf = (iso: string) => PDFString.of(`D:${iso.replace(/\D/g, '').slice(0, 14)}Z`);
const round = (n: number) => Math.round(n * 100) / 100;

/** How thick the line around a figure is, in points. */
const LINE = 1.5;

/**
 * What a mark looks like (ISO 32000-1, 12.5.5): the boxes of its words filled over the page as a highlighter would, that of a
 * figure with a line around it.
 */
function lookOf(
  context: PDFContext,
  quads: number[][],
  rect: number[],
  { color, on }: Pick<MarkToWrite, 'color' | 'on'>,
): PDFRef {
  const inset = 'box' in on ? LINE / 2 : 0;
  const fills = quads.map(
    ([x1, , x2, y2, , y3]) =>
      `${round(x1! + inset)} ${round(y3! + inset)} ${round(x2! - x1! - 2 * inset)} ${round(y2! - y3! - 2 * inset)} re`,
  );
  const how =
    'box' in on
      ? `${LINE} w ${color.map(round).join(' ')} RG ${fills.join(' ')} S`
      : `${color.map(round).join(' ')} rg ${fills.join(' f ')} f`;
  const stream = context.stream(`/G gs ${how}`, {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: rect,
    Resources: {
      ExtGState: { G: { Type: 'ExtGState', ...('box' in on ? {} : { BM: 'Multiply', ca: 0.55 }) } },
    },
  });
  return context.register(stream);
}

/** Corners of boxes in the space of a page: left upper, right upper, left lower, right lower, as readers expect them. */
function quadsOf(boxes: readonly Box[], view: PageViewport): number[][] {
  return boxes.map(({ left, top, right, bottom }) => {
    const [x1, y1] = view.convertToPdfPoint(left, top) as [number, number];
    const [x2, y2] = view.convertToPdfPoint(right, bottom) as [number, number];
    const [west, east] = [Math.min(x1, x2), Math.max(x1, x2)];
    const [south, north] = [Math.min(y1, y2), Math.max(y1, y2)];
    return [west, north, east, north, west, south, east, south];
  });
}

/** A box in parts of a leaf, in points of it. */
const inPoints = ({ leaf, box }: FigureBox, { width, height }: PageViewport): Box => ({
  leaf,
  left: box.x * width,
  right: (box.x + box.width) * width,
  top: box.y * height,
  bottom: (box.y + box.height) * height,
});

function addMark(document: PDFDocument, page: PDFPage, mark: MarkToWrite, quads: number[][]): void {
  const { context } = document;
  const xs = quads.flatMap((q) => [q[0]!, q[2]!]);
  const ys = quads.flatMap((q) => [q[1]!, q[5]!]);
  const rect = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(round);
  const annotation = context.obj({
    Type: 'Annot',
    ...('box' in mark.on
      ? { Subtype: 'Square', BS: { Type: 'Border', W: LINE } }
      : { Subtype: 'Highlight', QuadPoints: quads.flat().map(round), CA: 0.55 }),
    Rect: rect,
    C: mark.color.map(round),
    F: 4,
    NM: PDFString.of(mark.id),
    T: PDFHexString.fromText(withoutControls(mark.author)),
    Contents: PDFHexString.fromText(withoutControls(mark.note)),
    M: dateOf(mark.added),
    CreationDate: dateOf(mark.added),
    AP: { N: lookOf(context, quads, rect, mark) },
  });
  const there = page.node.lookupMaybe(PDFName.of('Annots'), PDFArray);
  const annotations = there ?? context.obj([]);
  annotations.push(context.register(annotation));
  if (!there) page.node.set(PDFName.of('Annots'), annotations);
}

/**
 * A PDF with passages marked in it, with note, author and colour: words as highlights (ISO 32000-1, 12.5.6.10), one for each leaf
 * a passage touches, figures as squares (12.5.6.8). `html` is the reading page made of the PDF. Everything else of the file stays as it is.
 */
export async function writeMarks(
  bytes: Uint8Array,
  html: string,
  marks: readonly MarkToWrite[],
): Promise<Uint8Array> {
  let document: PDFDocument;
  try {
    document = await PDFDocument.load(bytes, { updateMetadata: false });
  } catch (error) {
    throw new Unreadable(`The PDF cannot be written to: ${(error as Error).message.split('\n')[0]!}`);
  }
  const pages = document.getPages();
  const ofWords = boxesOf(
    html,
    marks.map(({ on }) => ('box' in on ? { start: 0, end: 0 } : on)),
  );
  await askPdf(bytes, async (read) => {
    const views = new Map<number, PageViewport>();
    for (const [i, mark] of marks.entries()) {
      const { on } = mark;
      for (const leaf of 'box' in on ? [on.leaf] : new Set(ofWords[i]!.map((box) => box.leaf))) {
        const page = pages[leaf - 1];
        if (!page) continue;
        const view = views.get(leaf) ?? (await read.getPage(leaf)).getViewport({ scale: 1 });
        views.set(leaf, view);
        const boxes = 'box' in on ? [inPoints(on, view)] : ofWords[i]!.filter((box) => box.leaf === leaf);
        addMark(document, page, mark, quadsOf(boxes, view));
      }
    }
  });
  return document.save();
}
