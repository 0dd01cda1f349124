import {
  Document,
  HeadingLevel,
  ImageRun,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type ParagraphChild,
} from 'docx';
import { entryRuns, writable, type Run } from '../../core/citing';
import {
  altOf,
  bySource,
  citesOwn,
  partsOfPassage,
  type OutLayout,
  type PassageOut,
  type PassagesOut,
} from '../../core/passages-out';
import { withoutControls } from '../../core/text';
import { basicLooks, runChildren } from '../lists/docx';

/** Half an inch in twentieths of a point. */
export const HALF_INCH = 720;

/** Widest a figure is set, in pixels at 96 to the inch: what a page has between its margins, and half of it in a column. */
export const WIDEST = { whole: 600, column: 280 };

/** The picture of a figure in a paragraph of its own, at most as large as it is at 192 pixels to the inch. */
export function pictureOf(passage: PassageOut, widest: number): Paragraph[] {
  const { figure } = passage;
  if (!figure?.png) return [];
  const width = Math.max(1, Math.round(Math.min(widest, figure.width / 2)));
  const height = Math.max(1, Math.round((width * figure.height) / figure.width));
  const alt = altOf(passage);
  return [
    new Paragraph({
      keepNext: true,
      spacing: { after: 60 },
      children: [
        new ImageRun({
          type: 'png',
          data: Buffer.from(figure.png, 'base64'),
          transformation: { width, height },
          altText: { name: figure.number || 'Figure', title: figure.number || 'Figure', description: alt },
        }),
      ],
    }),
  ];
}

const children = (runs: Run[]): ParagraphChild[] => writable(runs).flatMap(runChildren);

/** The two sides of a passage: the work's words, and one's own with what it is and where above them. */
function sidesOf(
  passage: PassageOut,
  indent: number,
  widest: number,
): { work: Paragraph[]; own: Paragraph[] } {
  const { head, quotation, own, said } = partsOfPassage(passage);
  const ownCited = citesOwn(passage);
  const cited: Run[] = [{ text: ' ' }, ...passage.citation];
  const words =
    quotation || (passage.figure && !ownCited)
      ? [
          new Paragraph({
            indent: { left: indent },
            spacing: { after: 120 },
            children: children([{ text: quotation }, ...(ownCited ? [] : cited)]),
          }),
        ]
      : [];
  const lines = own.length || !ownCited ? own : [''];
  return {
    work: [...pictureOf(passage, widest), ...words],
    own: [
      new Paragraph({ spacing: { after: 60 }, children: [new TextRun({ text: head, italics: true })] }),
      ...lines.map(
        (text, i) =>
          new Paragraph({
            spacing: { after: 120 },
            children: children([{ text }, ...(ownCited && i === lines.length - 1 ? cited : [])]),
          }),
      ),
      ...said.map(
        (text) =>
          new Paragraph({
            indent: { left: HALF_INCH / 2 },
            spacing: { after: 120 },
            children: children([{ text }]),
          }),
      ),
    ],
  };
}

export const headingOf = (text: string, level: (typeof HeadingLevel)[keyof typeof HeadingLevel]) =>
  new Paragraph({
    heading: level,
    spacing: { before: 240, after: 120 },
    children: [new TextRun({ text: withoutControls(text), bold: true, color: '000000' })],
  });

/** Passages as a .docx document (ECMA-376): by source, in a table of two columns or one below the other, with the references. */
export async function passagesDocx(out: PassagesOut, layout: OutLayout): Promise<Buffer> {
  const half = { size: 50, type: WidthType.PERCENTAGE };
  const cell = (content: Paragraph[]) =>
    new TableCell({
      width: half,
      margins: { top: 60, bottom: 60, left: 100, right: 100 },
      children: content.length ? content : [new Paragraph({})],
    });
  const body = bySource(out.passages).flatMap(({ source, passages }) => [
    headingOf(source, HeadingLevel.HEADING_2),
    ...(layout === 'beside'
      ? [
          new Table({
            width: { size: 100, type: WidthType.PERCENTAGE },
            rows: passages.map((passage) => {
              const { work, own } = sidesOf(passage, 0, WIDEST.column);
              return new TableRow({ cantSplit: true, children: [cell(work), cell(own)] });
            }),
          }),
        ]
      : passages.flatMap((passage) => {
          const { work, own } = sidesOf(passage, HALF_INCH, WIDEST.whole);
          return [...work, ...own];
        })),
  ]);
  return documentOf(out, [headingOf(out.title, HeadingLevel.HEADING_1), ...body]);
}

/** A document of what is written out, with the reference list behind it. */
export function documentOf(
  { title, lang, references }: Pick<PassagesOut, 'title' | 'lang' | 'references'>,
  body: (Paragraph | Table)[],
): Promise<Buffer> {
  const list = references?.entries.length
    ? [
        headingOf('References', HeadingLevel.HEADING_2),
        ...references.entries.map(
          (entry) =>
            new Paragraph({
              indent: { left: HALF_INCH, hanging: HALF_INCH },
              spacing: { after: 120 },
              children: children(entryRuns(entry)),
            }),
        ),
      ]
    : [];
  const document = new Document({
    title: withoutControls(title),
    creator: 'Retexa',
    styles: {
      default: basicLooks(lang),
      // What headings are based on must be there for those who follow that.
      paragraphStyles: [{ id: 'Normal', name: 'Normal' }],
    },
    sections: [{ children: [...body, ...list] }],
  });
  return Packer.toBuffer(document);
}
