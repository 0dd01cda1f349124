import { Document, FootnoteReferenceRun, HeadingLevel, Packer, Paragraph, Tab, TextRun } from 'docx';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readMarkdownOutline } from '../core/outline';
import { outlineOfDocx, textOfDocx } from './docx';

describe('the text of a .docx document', () => {
  it('joins runs, ends paragraphs, and has the notes after', async () => {
    const document = new Document({
      footnotes: { 1: { children: [new Paragraph('See @zee2015ledgers.')] } },
      sections: [
        {
          children: [
            new Paragraph({
              children: [
                new TextRun('Ponds fill [@ferr'),
                new TextRun({ text: 'eira2021, p. 9', bold: true }),
                new TextRun({ children: [new Tab(), '] & <more>'] }),
                new FootnoteReferenceRun(1),
              ],
            }),
            new Paragraph('Second.'),
          ],
        },
      ],
    });
    const text = textOfDocx(new Uint8Array(await Packer.toBuffer(document)));
    expect(text).toMatch(/^Ponds fill \[@ferreira2021, p\. 9 \] & <more>\nSecond\.\n/);
    expect(text).toContain('See @zee2015ledgers.');
  });
  it('is refused in words where there is none', () => {
    expect(() => textOfDocx(new TextEncoder().encode('no archive'))).toThrow('no .docx document');
    expect(() => textOfDocx(zipSync({ 'a.txt': new Uint8Array(3) }))).toThrow('no .docx document');
  });
});

describe('the headings of a .docx document', () => {
  it('are sections, by their styles in any language, and what stands under them is said', async () => {
    const document = new Document({
      styles: {
        paragraphStyles: [
          { id: 'Normal', name: 'Normal' },
          // As other languages call them, the built-in name stays; a style of one’s own says its level, or is based on one.
          { id: 'berschrift2', name: 'heading 2', basedOn: 'Normal' },
          { id: 'Chapter', name: 'Chapter', basedOn: 'Heading1' },
        ],
      },
      sections: [
        {
          children: [
            new Paragraph({ heading: HeadingLevel.HEADING_1, text: 'Ponds & gates' }),
            new Paragraph('Mills ground [with] the tide.'),
            new Paragraph({ style: 'berschrift2', text: 'Of gates' }),
            new Paragraph('# Is this a heading?'),
            new Paragraph({ style: 'Chapter', text: 'Wages' }),
            new Paragraph({ outlineLevel: 1, text: 'By the tide' }),
            new Paragraph(''),
          ],
        },
      ],
    });
    const text = outlineOfDocx(new Uint8Array(await Packer.toBuffer(document)));
    expect(readMarkdownOutline(text).sections).toEqual([
      { name: 'Ponds & gates', depth: 0, said: [{ kind: 'sentence', words: 'Mills ground [with] the tide.' }] },
      { name: 'Of gates', depth: 1, said: [{ kind: 'question', words: '# Is this a heading?' }] },
      { name: 'Wages', depth: 0, said: [] },
      { name: 'By the tide', depth: 1, said: [] },
    ]);
  }); // prettier-ignore
  it('are refused in words where there is no document', () => {
    expect(() => outlineOfDocx(new TextEncoder().encode('no archive'))).toThrow('no .docx document');
  });
});
