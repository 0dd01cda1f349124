import { Document, FootnoteReferenceRun, Packer, Paragraph, Tab, TextRun } from 'docx';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { textOfDocx } from './docx';

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
