import { readFile } from 'node:fs/promises';
import { BlendMode, PDFDocument, rgb } from '@cantoo/pdf-lib';
import { JSDOM } from 'jsdom';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Run } from '../core/citing';
import { textOf, type Segment } from '../core/passages';
import { withoutControls } from '../core/text';
import { withDrawing } from './cut';
import { Unreadable } from './failure';
import { boxesOf } from './pdf-write';

/** A passage in a reading copy: where it stands in the text of the reading page, and what is noted beside it. */
export interface ReadingMark {
  /** Its stretches, UTF-16 offsets; none for a word on the whole, and for a figure. */
  stretches: { start: number; end: number }[];
  /** The leaf of a figure, and how far down on it, 0 to 1; `picture` for one on a picture of a page. */
  leaf?: { n: number; at: number };
  picture?: string;
  /** What it is and where, in a line; then its point and one's own words. */
  head: string;
  note: string;
  /** Red, green and blue, 0 to 1. */
  color: [number, number, number];
}

/** What a reading copy is made of. */
export interface ReadingCopy {
  /** The reading page. */
  html: string;
  /** The reference of the source, as it prints. */
  reference: Run[];
  title: string;
  marks: ReadingMark[];
  /** Where the pictures of the page are kept, by their SHA-256. */
  pictures: Record<string, string>;
}

/** Width of the notes beside a page, in points, and the band above the first page for the reference. */
const NOTES = 170;
const BAND = 54;
const [SMALL, TEXT] = [7.5, 10.5];

const hex = (color: readonly number[], light: number) =>
  `#${color
    .map((part) =>
      Math.round(255 * (part + (1 - part) * light))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
const clean = (text: string) => withoutControls(text).replace(/\u00ad/g, '');

/** Sets a document; the library and its typeface are loaded when one is set. */
async function setPdf(definition: TDocumentDefinitions): Promise<Uint8Array> {
  const { default: pdfmake } = await import('pdfmake');
  const { default: fonts } = await import('pdfmake/fonts/Roboto.js');
  pdfmake.setFonts(fonts);
  return new Uint8Array(
    await pdfmake.createPdf({ defaultStyle: { font: 'Roboto', fontSize: TEXT }, ...definition }).getBuffer(),
  );
}

const noteOf = ({ head, note, color }: ReadingMark): Content => ({
  table: {
    widths: ['*'],
    body: [[{ stack: [{ text: clean(head), bold: true, fontSize: SMALL }, ...(note ? [{ text: clean(note), fontSize: SMALL + 0.5 }] : [])], border: [true, false, false, false], borderColor: Array(4).fill(hex(color, 0)) as [string, string, string, string] }]],
  },
  layout: { defaultBorder: false, vLineWidth: () => 2, paddingLeft: () => 5, paddingTop: () => 1, paddingBottom: () => 1 },
  margin: [0, 0, 0, 4],
}); // prettier-ignore

/** Elements that are set as one block each. */
const BLOCKS = 'h1, h2, h3, h4, h5, h6, p, li, pre, dt, dd, figcaption, th, td, caption';

interface Block {
  content: Content;
  /** Where its text begins and ends. */
  start: number;
  end: number;
  picture?: string;
}

/** The words of a block in runs: marked where a passage stands, slanted and bold as they are on the page. */
function runsOf(segments: readonly Segment[], marks: readonly ReadingMark[]): Content[] {
  return segments.flatMap(({ start, node }): Content[] => {
    const cuts = marks
      .flatMap((mark) => mark.stretches)
      .flatMap((s) => [s.start - start, s.end - start])
      .filter((at) => at > 0 && at < node.data.length);
    const ends = [...new Set([0, ...cuts, node.data.length])].sort((a, b) => a - b);
    return ends.slice(1).map((to, i): Content => {
      const from = ends[i]!;
      const mark = marks.find((m) => m.stretches.some((s) => s.start <= start + from && s.end >= start + to));
      return {
        text: clean(node.data.slice(from, to)),
        italics: Boolean(node.parentElement?.closest('i, em, cite, var')),
        bold: Boolean(node.parentElement?.closest('b, strong, th')),
        ...(mark ? { background: hex(mark.color, 0.35) } : {}),
      };
    });
  });
}

const SIZES: Record<string, number> = { H1: 17, H2: 14, H3: 12.5, H4: 11.5 };

/** The blocks of a reading page in their order. */
async function blocksOf(copy: ReadingCopy): Promise<Block[]> {
  const dom = new JSDOM(`<body>${copy.html}</body>`);
  const { body } = dom.window.document;
  const { segments } = textOf(body);
  const blocks: Block[] = [];
  let open: { of: Element; segments: Segment[] } | undefined;
  const close = () => {
    if (!open) return;
    const { of, segments: own } = open;
    open = undefined;
    const last = own.at(-1)!;
    const size = SIZES[of.tagName] ?? (of.tagName === 'FIGCAPTION' ? 9 : TEXT);
    blocks.push({
      start: own[0]!.start,
      end: last.start + last.node.data.length,
      content: {
        text: [...(of.tagName === 'LI' ? ['• '] : []), ...runsOf(own, copy.marks)],
        fontSize: size,
        bold: of.tagName in SIZES,
        margin: [of.closest('blockquote, li, dd') ? 14 : 0, of.tagName in SIZES ? 8 : 0, 0, 5],
      },
    });
  };
  const nth = new Map(segments.map((segment) => [segment.node as Node, segment]));
  const walker = dom.window.document.createTreeWalker(body, 5);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if ((node as Element).tagName === 'IMG') {
      close();
      const sha256 = /pictures\/([0-9a-f]{64})$/.exec(
        (node as HTMLImageElement).getAttribute('src') ?? '',
      )?.[1];
      const path = sha256 && copy.pictures[sha256];
      const at = blocks.at(-1)?.end ?? 0;
      const drawn = path ? await withDrawing(await readFile(path), []).catch(() => undefined) : undefined;
      if (drawn && sha256)
        blocks.push({
          start: at,
          end: at,
          picture: sha256,
          content: {
            image: `data:image/png;base64,${Buffer.from(drawn.png).toString('base64')}`,
            width: Math.min(330, drawn.width / 2),
            margin: [0, 4, 0, 6],
          },
        });
      continue;
    }
    const segment = nth.get(node);
    if (!segment || !segment.node.data.trim()) continue;
    const of =
      segment.node.parentElement!.closest(BLOCKS) ??
      segment.node.parentElement!.closest('div, section, article, main, body')!;
    if (open?.of !== of) close();
    open ??= { of, segments: [] };
    open.segments.push(segment);
  }
  close();
  dom.window.close();
  return blocks;
}

const reference = (copy: ReadingCopy): Content => ({
  text: copy.reference.map(({ text, italic, bold, underline, raised, lowered }) => ({
    text: clean(text),
    ...(italic ? { italics: true } : {}),
    ...(bold ? { bold: true } : {}),
    ...(underline ? { decoration: 'underline' as const } : {}),
    ...(raised ? { sup: true } : {}),
    ...(lowered ? { sub: true } : {}),
  })),
  fontSize: 9.5,
  margin: [0, 0, 0, 10],
});
const footer = (page: number, pages: number): Content => ({
  text: `${page} / ${pages}`,
  alignment: 'center',
  fontSize: SMALL,
  margin: [0, 8, 0, 0],
});

/**
 * A page as a PDF to read on paper: its reference on top, its text with what is marked, what was noted in the margin level with
 * it, page numbers below.
 */
export async function pageCopy(copy: ReadingCopy): Promise<Uint8Array> {
  const blocks = await blocksOf(copy);
  const begins = ({ stretches: [first] }: ReadingMark) => first?.start;
  const whole = copy.marks.filter((m) => begins(m) === undefined && !m.picture);
  const rows = blocks.map(({ content, start, end, picture }): Content[] => [
    content,
    {
      stack: copy.marks
        .filter((m) =>
          picture
            ? m.picture === picture
            : begins(m) !== undefined && begins(m)! >= start && begins(m)! < end,
        )
        .map(noteOf),
    },
  ]);
  return setPdf({
    info: { title: clean(copy.title) },
    pageSize: 'A4',
    pageMargins: [48, 44, 36, 48],
    footer,
    content: [
      reference(copy),
      ...whole.map(noteOf),
      {
        table: { widths: ['*', NOTES - 20], body: rows.length ? rows : [['', '']], dontBreakRows: false },
        layout: { defaultBorder: false, paddingTop: () => 0, paddingBottom: () => 0, paddingLeft: () => 0, paddingRight: (i) => (i === 0 ? 16 : 0) },
      },
    ],
  }); // prettier-ignore
}

/** Where the notes beside a leaf stand, from its top: each level with its passage, below the one before it. */
function levelled(notes: { at: number; mark: ReadingMark }[]): { at: number; mark: ReadingMark }[] {
  let free = 14;
  return [...notes]
    .sort((a, b) => a.at - b.at)
    .map(({ at, mark }) => {
      const top = Math.max(at, free);
      const lines = Math.ceil((mark.note.length + 1) / 38) + 2;
      free = top + lines * (SMALL + 2) + 4;
      return { at: top, mark };
    });
}

/** A PDF with its passages marked, what was noted in a margin beside its pages, its reference above the first of them. */
export async function pdfCopy(bytes: Uint8Array, copy: ReadingCopy): Promise<Uint8Array> {
  let given: PDFDocument;
  try {
    given = await PDFDocument.load(bytes, { updateMetadata: false });
  } catch (error) {
    throw new Unreadable(`The PDF cannot be written out: ${(error as Error).message.split('\n')[0]!}`);
  }
  const boxes = boxesOf(
    copy.html,
    copy.marks.flatMap((m) => m.stretches),
  );
  const of = copy.marks.flatMap((mark) => mark.stretches.map(() => mark));
  const made = await PDFDocument.create();
  const leaves = await made.embedPages(given.getPages());
  // The margin is set apart, so that it has a typeface with more than the letters of western Europe, and laid over.
  const beside = leaves.map((leaf, i) => {
    const n = i + 1;
    const first = new Map<ReadingMark, number>();
    boxes.forEach((own, j) => {
      const top = own.find((box) => box.leaf === n)?.top;
      const begins = Math.min(...boxes.flatMap((b, k) => (of[k] === of[j] ? b.map((box) => box.leaf) : [])));
      if (top !== undefined && begins === n && !first.has(of[j]!)) first.set(of[j]!, top);
    });
    for (const mark of copy.marks) if (mark.leaf?.n === n) first.set(mark, mark.leaf.at * leaf.height);
    const band = i === 0 ? BAND : 0;
    const whole = i === 0 ? copy.marks.filter((m) => !m.stretches.length && !m.leaf) : [];
    return levelled([
      ...whole.map((mark) => ({ at: band, mark })),
      ...[...first].map(([mark, at]) => ({ at: at + band, mark })),
    ]);
  });
  const overlay = await PDFDocument.load(
    await setPdf({
      info: { title: clean(copy.title) },
      // Pages of several sizes lie in the upper left corner of the largest.
      pageSize: {
        width: Math.max(...leaves.map((leaf) => leaf.width)) + NOTES,
        height: Math.max(...leaves.map((leaf) => leaf.height)) + BAND,
      },
      pageMargins: 0,
      content: leaves.flatMap((leaf, i): Content[] => [
        {
          text: ' ',
          fontSize: 1,
          ...(i > 0 ? { pageBreak: 'before' as const } : {}),
        },
        ...(i === 0
          ? [{ ...(reference(copy) as object), absolutePosition: { x: 24, y: 16 } } as Content]
          : []),
        ...beside[i]!.map(({ at, mark }): Content => ({
          columns: [{ width: NOTES - 22, stack: [noteOf(mark)] }],
          absolutePosition: { x: leaf.width + 8, y: at },
        })),
        {
          text: `${i + 1} / ${leaves.length}`,
          fontSize: SMALL,
          absolutePosition: { x: leaf.width + NOTES - 50, y: leaf.height + (i === 0 ? BAND : 0) - 20 },
        },
      ]),
    }),
  );
  const laid = await made.embedPages(overlay.getPages());
  for (const [i, leaf] of leaves.entries()) {
    const band = i === 0 ? BAND : 0;
    const page = made.addPage([leaf.width + NOTES, leaf.height + band]);
    page.drawPage(leaf, { x: 0, y: 0 });
    boxes.forEach((own, j) => {
      for (const { left, right, top, bottom } of own.filter((box) => box.leaf === i + 1))
        page.drawRectangle({
          x: left,
          y: leaf.height - bottom,
          width: right - left,
          height: bottom - top,
          color: rgb(...of[j]!.color),
          opacity: 0.55,
          blendMode: BlendMode.Multiply,
        });
    });
    const over = laid[i];
    if (over) page.drawPage(over, { x: 0, y: leaf.height + band - over.height });
  }
  made.setTitle(clean(copy.title));
  return made.save();
}
