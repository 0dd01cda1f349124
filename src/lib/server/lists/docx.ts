import {
  AlignmentType,
  Document,
  ExternalHyperlink,
  HeadingLevel,
  Packer,
  Paragraph,
  TextRun,
  type IStylesOptions,
  type ParagraphChild,
} from 'docx';
import { entryRuns, writable, type PrintedList, type PrintedReference, type Run } from '../../core/citing';
import { withoutControls } from '../../core/text';

const ADDRESS = /https?:\/\/[^\s<>"]+[^\s<>".,;)]/g;
/** Half an inch in twentieths of a point, the customary hanging indent. */
const HALF_INCH = 720;

/**
 * What a .docx of ours is based on, in a language: its type, and that headings are of a level, by which they are found.
 * ECMA-376-1, 17.3.1.20.
 */
export const basicLooks = (lang: string): NonNullable<IStylesOptions['default']> => ({
  document: { run: { font: 'Times New Roman', size: 24, language: { value: lang } } },
  ...Object.fromEntries(
    [1, 2, 3, 4, 5, 6].map((n) => [`heading${n}`, { paragraph: { outlineLevel: n - 1 } }]),
  ),
});

/** A run as what a paragraph of a .docx document holds, its addresses as links. */
export function runChildren(run: Run): ParagraphChild[] {
  const look = {
    ...(run.italic ? { italics: true } : {}),
    ...(run.bold ? { bold: true } : {}),
    ...(run.smallCaps ? { smallCaps: true } : {}),
    ...(run.underline ? { underline: {} } : {}),
    ...(run.raised ? { superScript: true } : {}),
    ...(run.lowered ? { subScript: true } : {}),
  };
  const children: ParagraphChild[] = [];
  let from = 0;
  for (const m of run.text.matchAll(ADDRESS)) {
    if (m.index > from) children.push(new TextRun({ text: run.text.slice(from, m.index), ...look }));
    children.push(
      new ExternalHyperlink({
        link: m[0],
        children: [new TextRun({ text: m[0], style: 'Hyperlink', ...look })],
      }),
    );
    from = m.index + m[0].length;
  }
  if (from < run.text.length) children.push(new TextRun({ text: run.text.slice(from), ...look }));
  return children;
}

const headingOf = (text: string) =>
  new Paragraph({
    heading: HeadingLevel.HEADING_2,
    spacing: { before: 240, line: 480 },
    children: [new TextRun({ text: withoutControls(text), bold: true, size: 24, color: '000000' })],
  });

const annotationsOf = ({ annotations = [] }: PrintedReference) =>
  annotations.map(
    (a) =>
      new Paragraph({
        spacing: { line: 480 },
        indent: { left: HALF_INCH },
        children: [new TextRun({ text: withoutControls(a.text) })],
      }),
  );

/**
 * A reference list as a .docx document (ECMA-376): on its own page, double spaced, hanging indent where the style has
 * one, italics and links kept. `lang` is the list's language.
 */
export async function docxDocument(list: PrintedList, heading: string, lang: string): Promise<Buffer> {
  const title = withoutControls(heading);
  const indent = list.hangingIndent ? { indent: { left: HALF_INCH, hanging: HALF_INCH } } : {};
  const document = new Document({
    title,
    creator: 'Retexa',
    styles: { default: basicLooks(lang) },
    sections: [
      {
        children: [
          new Paragraph({
            heading: HeadingLevel.HEADING_1,
            alignment: AlignmentType.CENTER,
            pageBreakBefore: true,
            children: [new TextRun({ text: title, bold: true, size: 24, color: '000000' })],
          }),
          ...list.entries.flatMap((e) => [
            ...(e.heading ? [headingOf(e.heading)] : []),
            new Paragraph({
              spacing: { line: 480 },
              ...indent,
              children: writable(entryRuns(e))
                .filter((r) => r.text)
                .flatMap(runChildren),
            }),
            ...annotationsOf(e),
          ]),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}
