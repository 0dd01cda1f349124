import { HeadingLevel, Paragraph, TextRun, type ParagraphChild } from 'docx';
import { writable, type Run } from '../../core/citing';
import { paragraphsOfPassage, type OutlineOut, type OutlineOutOptions } from '../../core/outline-out';
import { withoutControls } from '../../core/text';
import { runChildren } from '../lists/docx';
import { documentOf, HALF_INCH, headingOf, pictureOf, WIDEST } from '../passages/docx';

const LEVELS = [
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
  HeadingLevel.HEADING_6,
] as const;

const children = (runs: Run[]): ParagraphChild[] => writable(runs).flatMap(runChildren);
const paragraph = (runs: Run[], indent = 0, italics = false): Paragraph =>
  new Paragraph({
    ...(indent ? { indent: { left: indent } } : {}),
    spacing: { after: 120 },
    children: italics
      ? runs.map(({ text }) => new TextRun({ text: withoutControls(text), italics }))
      : children(runs),
  });

/** An outline as an Office Open XML document (ECMA-376): true headings, quotations set in, the reference list behind. */
export function outlineDocx(out: OutlineOut, options: OutlineOutOptions): Promise<Buffer> {
  const body = out.lines.flatMap((line): Paragraph[] => {
    switch (line.kind) {
      case 'section':
        return [headingOf(line.name, LEVELS[Math.min(line.depth, LEVELS.length - 1)]!)];
      case 'source':
        return [paragraph([{ text: line.title ? `${line.title} ` : '' }, ...line.citation])];
      case 'passage':
        return [
          ...(options.quotations ? pictureOf(line.passage, WIDEST.whole) : []),
          ...paragraphsOfPassage(line.passage, options).map(({ kind, text, citation }) =>
            paragraph(
              [{ text: text && citation ? `${text} ` : text }, ...(citation ?? [])],
              kind === 'quotation' ? HALF_INCH : 0,
            ),
          ),
        ];
      default:
        return [paragraph([{ text: line.words }], 0, line.kind === 'question')];
    }
  });
  return documentOf(out, [headingOf(out.title, HeadingLevel.HEADING_1), ...body]);
}
