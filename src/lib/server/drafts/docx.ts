import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  Document,
  ExternalHyperlink,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  ImportedXmlComponent,
  InternalHyperlink,
  LevelFormat,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type IParagraphOptions,
  type ParagraphChild,
} from 'docx';
import { entryRuns, writable, type Run } from '../../core/citing';
import {
  laidOut,
  notesIn,
  ommlOf,
  spelledOut,
  type Citing,
  type DraftOut,
  type Laid,
  type MathmlOf,
  type Stretch,
} from '../../core/drafting-out';
import { withoutControls } from '../../core/text';
import { basicLooks, runChildren } from '../lists/docx';
import { HALF_INCH, WIDEST } from '../passages/docx';

const HEADINGS = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
  HeadingLevel.HEADING_6,
] as const;
const children = (runs: Run[]): ParagraphChild[] => writable(runs).flatMap(runChildren);
/** A name a bookmark can have: letters, figures and strokes, a letter first, forty at most. ECMA-376-1, 17.13.6.2. */
const bookmarked = (id: string) => `p${id.replace(/[^A-Za-z0-9]/g, '')}`.slice(0, 40);

/** A formula as Office has it; as it was typed, in TeX, where it cannot be read. */
function formulaOf(tex: string, display: boolean, maths: MathmlOf): ParagraphChild {
  const mathml = maths(tex, display);
  const omml = mathml === undefined ? undefined : ommlOf(mathml);
  if (!omml) return new TextRun({ text: tex, font: 'Cambria Math', italics: true });
  // What is imported is a document around the element.
  const { root } = ImportedXmlComponent.fromXmlString(omml) as unknown as { root: ParagraphChild[] };
  return root.at(-1)!;
}

/** What stands in a line. */
function lineOf(stretches: readonly Stretch[], maths: MathmlOf): ParagraphChild[] {
  return stretches.flatMap((one): ParagraphChild[] => {
    switch (one.is) {
      case 'runs': {
        if (one.href)
          return [
            new ExternalHyperlink({
              link: one.href,
              children: one.runs.map(
                (r) => new TextRun({ text: withoutControls(r.text), style: 'Hyperlink' }),
              ),
            }),
          ];
        if (one.code || one.strike)
          return one.runs.map(
            (r) =>
              new TextRun({
                text: withoutControls(r.text),
                ...(one.code ? { font: 'Courier New' } : {}),
                ...(one.strike ? { strike: true } : {}),
                ...(r.italic ? { italics: true } : {}),
                ...(r.bold ? { bold: true } : {}),
              }),
          );
        return children(one.runs);
      }
      case 'cite':
        if (one.note !== undefined) return [...children(one.author), new FootnoteReferenceRun(one.note)];
        return [
          ...children(one.author),
          ...(one.author.length && one.runs.length ? [new TextRun({ text: ' ' })] : []),
          ...children(one.runs),
        ];
      case 'note':
        return [new FootnoteReferenceRun(one.number)];
      case 'tex':
        return [formulaOf(one.tex, false, maths)];
      case 'pointer':
        return one.name
          ? [
              new InternalHyperlink({
                anchor: bookmarked(one.to),
                children: [new TextRun({ text: one.name })],
              }),
            ]
          : [];
      case 'break':
        return [new TextRun({ break: 1 })];
    }
  });
}

type Around = Pick<IParagraphOptions, 'style' | 'indent' | 'numbering' | 'spacing'>;
const SPACING = { after: 160 };

/** A caption: what it is called, which something may point at, and what it says. */
const captionOf = (
  id: string,
  name: string,
  caption: readonly Stretch[],
  maths: MathmlOf,
  line: readonly Stretch[] = [],
) =>
  new Paragraph({
    style: 'Caption',
    spacing: SPACING,
    children: [
      new Bookmark({ id: bookmarked(id), children: [new TextRun({ text: name, bold: true })] }),
      new TextRun({ text: '. ' }),
      ...lineOf(caption, maths),
      ...(caption.length && line.length ? [new TextRun({ text: ' ' })] : []),
      ...lineOf(line, maths),
    ],
  });

const BORDER = { style: BorderStyle.SINGLE, size: 4, color: '888888' };

function blocksOf(
  laid: readonly Laid[],
  within: { depth: number; count: { n: number }; maths: MathmlOf },
  around: Around = {},
): (Paragraph | Table)[] {
  return laid.flatMap((one): (Paragraph | Table)[] => {
    switch (one.is) {
      case 'heading':
        return [
          new Paragraph({
            heading: HEADINGS[Math.min(one.level, 6) - 1]!,
            spacing: { before: 280, after: 120 },
            children: one.id
              ? [new Bookmark({ id: bookmarked(one.id), children: lineOf(one.line, within.maths) })]
              : lineOf(one.line, within.maths),
          }),
        ];
      case 'paragraph':
        return [new Paragraph({ spacing: SPACING, ...around, children: lineOf(one.line, within.maths) })];
      case 'quotation':
        return blocksOf(one.content, within, { ...around, style: 'Quote' });
      case 'list': {
        const level = Math.min(within.depth, 5);
        const instance = one.ordered ? ++within.count.n : 0;
        return one.items.flatMap((item) =>
          item.flatMap((block, i) =>
            blocksOf(
              [block],
              { ...within, depth: within.depth + 1 },
              i === 0
                ? {
                    numbering: { reference: one.ordered ? 'numbers' : 'points', level, instance },
                    spacing: { after: 60 },
                  }
                : { indent: { left: HALF_INCH * (level + 1) }, spacing: { after: 60 } },
            ),
          ),
        );
      }
      case 'table':
        return [
          captionOf(one.id, one.name, one.caption, within.maths),
          new Table({
            width: { size: 100, type: WidthType.PERCENTAGE },
            borders: {
              top: BORDER,
              bottom: BORDER,
              left: BORDER,
              right: BORDER,
              insideHorizontal: BORDER,
              insideVertical: BORDER,
            },
            rows: one.rows.map(
              (row) =>
                new TableRow({
                  tableHeader: row.every((c) => c.head),
                  children: row.map(({ across, down, content }) => {
                    const inside = blocksOf(content, within, { spacing: { after: 0 } });
                    return new TableCell({
                      columnSpan: across,
                      rowSpan: down,
                      margins: { top: 50, bottom: 50, left: 90, right: 90 },
                      children: inside.length ? inside : [new Paragraph({})],
                    });
                  }),
                }),
            ),
          }),
          new Paragraph({ spacing: { after: 120 } }),
        ];
      case 'figure': {
        const { picture } = one;
        const width = picture ? Math.max(1, Math.round(Math.min(WIDEST.whole, picture.width / 2))) : 0;
        return [
          ...(picture
            ? [
                new Paragraph({
                  keepNext: true,
                  spacing: { after: 60 },
                  children: [
                    new ImageRun({
                      type: 'png',
                      data: Buffer.from(picture.png, 'base64'),
                      transformation: {
                        width,
                        height: Math.max(1, Math.round((width * picture.height) / picture.width)),
                      },
                      altText: { name: one.name, title: one.name, description: one.alt },
                    }),
                  ],
                }),
              ]
            : []),
          captionOf(one.id, one.name, one.caption, within.maths, one.line),
        ];
      }
      case 'formula':
        return [
          new Paragraph({
            alignment: AlignmentType.CENTER,
            spacing: SPACING,
            children: [formulaOf(one.tex, true, within.maths)],
          }),
        ];
      case 'code':
        return one.text
          .split('\n')
          .map(
            (text) =>
              new Paragraph({ ...around, children: [new TextRun({ text, font: 'Courier New', size: 20 })] }),
          );
      case 'rule':
        return [
          new Paragraph({
            alignment: AlignmentType.CENTER,
            spacing: SPACING,
            children: [new TextRun({ text: '* * *' })],
          }),
        ];
    }
  });
}

const numbering = (
  reference: string,
  format: (typeof LevelFormat)[keyof typeof LevelFormat],
  text: (i: number) => string,
) => ({
  reference,
  levels: Array.from({ length: 6 }, (_, level) => ({
    level,
    format,
    text: text(level),
    style: { paragraph: { indent: { left: HALF_INCH * (level + 1), hanging: HALF_INCH / 2 } } },
  })),
});

/**
 * A draft as an Office Open XML document (ECMA-376): true headings, footnotes, captions that are pointed at, lists, tables,
 * formulas, and the list of what is cited with its hanging indent. With citekeys, they stand in the text, and `{#refs}` in the list’s place.
 */
export function draftDocx(
  out: DraftOut,
  citing: Citing,
  maths: MathmlOf = () => undefined,
): Promise<Buffer> {
  const laid = citing === 'keys' ? spelledOut(out) : laidOut(out);
  const list = citing === 'keys' && out.list ? [{ runs: [{ text: '{#refs}' }] }] : (out.list?.entries ?? []);
  const looks = basicLooks(out.lang);
  const document = new Document({
    title: withoutControls(out.title),
    creator: 'Retexa',
    styles: {
      default: { ...looks, document: { ...looks.document, paragraph: { spacing: { line: 360 } } } },
      paragraphStyles: [
        // What all others are based on must be there for those who follow that.
        { id: 'Normal', name: 'Normal' },
        { id: 'Quote', name: 'Quote', basedOn: 'Normal', paragraph: { indent: { left: HALF_INCH, right: HALF_INCH } } },
        { id: 'Caption', name: 'caption', basedOn: 'Normal', run: { size: 20 } },
      ],
    },
    numbering: {
      config: [
        numbering('points', LevelFormat.BULLET, () => '•'),
        numbering('numbers', LevelFormat.DECIMAL, (i) => `%${i + 1}.`),
      ],
    },
    footnotes: Object.fromEntries(
      notesIn(laid).map(({ number, content }) => [
        number,
        { children: [new Paragraph({ children: lineOf(content, maths) })] },
      ]),
    ),
    sections: [
      {
        children: [
          new Paragraph({ heading: HeadingLevel.TITLE, children: [new TextRun({ text: withoutControls(out.title) })] }),
          ...blocksOf(laid, { depth: 0, count: { n: 0 }, maths }),
          ...(list.length
            ? [
                new Paragraph({
                  heading: HeadingLevel.HEADING_1,
                  spacing: { before: 280, after: 120 },
                  children: [new TextRun({ text: 'References' })],
                }),
                ...list.map(
                  (entry) =>
                    new Paragraph({
                      ...(out.list?.hangingIndent ? { indent: { left: HALF_INCH, hanging: HALF_INCH } } : {}),
                      spacing: { after: 120 },
                      children: children(entryRuns(entry)),
                    }),
                ),
              ]
            : []),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
} // prettier-ignore
