/** Reading copies. Outside: what was set by pdfmake and put together by pdf-lib is read by pdf.js, which made none of it. */
import { createCanvas } from '@napi-rs/canvas';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { DOCUMENTS } from '../../stand-ins/documents';
import { printedLabels, readingHtml } from '../../src/lib/core/documents';
import { textOf } from '../../src/lib/core/passages';
import { pageCopy, pdfCopy, type ReadingMark } from '../../src/lib/reading/reading-copy';
import { readPdfText } from '../../src/lib/reading/pdf';
import { JSDOM } from 'jsdom';

const RUNS = [{ text: 'Pell, A. (2001). ' }, { text: 'Sluices of the sound', italic: true }, { text: '. Harbour Press.' }]; // prettier-ignore
const REFERENCE = RUNS.map((run) => run.text).join('');
const textIn = async (bytes: Uint8Array) =>
  (await readPdfText(bytes)).leaves.map((leaf) =>
    leaf.runs
      .map((run) => run.text)
      .join(' ')
      .replace(/\s+/g, ' ')
      .replace(/ (?=[.,;])/g, ''),
  );
const markOn = (text: string, words: string, more: Partial<ReadingMark> = {}): ReadingMark => {
  const start = text.indexOf(words);
  expect(start).toBeGreaterThan(-1);
  return {
    stretches: [{ start, end: start + words.length }],
    head: 'Quotation · p. 9',
    note: `Noted at ${words.split(' ')[0]}`,
    color: [0.9, 0.8, 0.4],
    ...more,
  };
};
const textOfHtml = (html: string) => textOf(new JSDOM(`<body>${html}</body>`).window.document.body).text;

describe('a reading copy', () => {
  it('of a page has its reference, all its words, the notes, its picture and page numbers', async () => {
    const sha256 = 'a'.repeat(64);
    const path = join(mkdtempSync(join(tmpdir(), 'retexa-paper-')), 'a.png');
    writeFileSync(path, createCanvas(60, 40).toBuffer('image/png'));
    const paragraphs = Array.from(
      { length: 60 },
      (_, i) => `<p>Paragraph ${i} of <i>many</i> about mills and Größe.</p>`,
    );
    const html = `<h1>Sluices</h1>${paragraphs.join('')}<figure><img src="pictures/${sha256}" alt=""><figcaption>A gate</figcaption></figure>`;
    const text = textOfHtml(html);
    const marks = [
      markOn(text, 'Paragraph 3 of many'),
      markOn(text, 'Paragraph 58 of many'),
      { ...markOn(text, 'Sluices'), stretches: [], note: 'On the whole of it' },
      { ...markOn(text, 'Sluices'), stretches: [], picture: sha256, note: 'At the picture' },
    ];
    const pages = await textIn(
      await pageCopy({ html, reference: RUNS, title: 'Sluices', marks, pictures: { [sha256]: path } }),
    );
    expect(pages.length).toBeGreaterThan(1);
    expect(pages[0]).toContain(REFERENCE);
    expect(pages[0]).toContain('On the whole of it');
    const all = pages.join(' ');
    for (let i = 0; i < 60; i++) expect(all).toContain(`Paragraph ${i} of`);
    expect(all).toContain('Größe');
    // Each note is on the page its passage is on.
    for (const n of [3, 58]) {
      const page = pages.find((p) => p.includes(`Paragraph ${n} of`))!;
      expect(page).toContain('Noted at Paragraph');
    }
    expect(all).toContain('At the picture');
    expect(pages[1]).toContain(`2 / ${pages.length}`);
  });
  it('of a PDF has its pages as they are, with the notes beside them', async () => {
    const bytes = await DOCUMENTS['estuaryshore.example/pdf/12-2-101.pdf']!.bytes();
    const { leaves, labels } = await readPdfText(bytes);
    const html = readingHtml(leaves, printedLabels(leaves, labels));
    const text = textOfHtml(html);
    const marks = [
      markOn(text, 'Every pond began to fill'),
      { ...markOn(text, 'Every pond'), stretches: [], leaf: { n: 2, at: 0.5 }, note: 'At the figure Ω' },
    ];
    const made = await pdfCopy(bytes, { html, reference: RUNS, title: 'Ponds', marks, pictures: {} });
    const read = await readPdfText(made);
    expect(read.leaves).toHaveLength(leaves.length);
    expect(read.leaves[0]!.width).toBeGreaterThan(leaves[0]!.width + 100);
    const pages = await textIn(made);
    expect(pages[0]).toContain(REFERENCE);
    expect(pages[0]).toContain('Noted at Every');
    expect(pages[0]).toContain('Every pond began to fill');
    expect(pages[1]).toContain('At the figure Ω');
    expect(pages[1]).not.toContain(REFERENCE);
    // The note stands level with its words.
    const [first] = read.leaves;
    const at = (words: string) => first!.runs.find((run) => run.text.includes(words))!.y;
    expect(Math.abs(at('Noted') - at('Every'))).toBeLessThan(40);
  });
});
