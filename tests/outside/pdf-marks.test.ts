/**
 * Marks, contents and links in PDFs. Outside: pdfTeX with hyperref (Debian's texlive-latex-base) writes what is read; what is
 * written is read by pdf-lib and by pdf.js, which did not write it. Rules: ISO 32000-1, 12.3.3, 12.4.2, 12.5.6.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber } from 'pdf-lib';
import { beforeAll, describe, expect, it } from 'vitest';
import { DOCUMENTS } from '../../stand-ins/documents';
import { printedLabels, readingHtml } from '../../src/lib/core/documents';
import { leavesIn } from '../../src/lib/core/passages';
import { readPdfText } from '../../src/lib/reading/pdf';
import { readContents, readLinks, readMarks } from '../../src/lib/reading/pdf-inside';
import { writeMarks } from '../../src/lib/reading/pdf-write';
import { drawLeaf } from '../../src/lib/reading/pdf';

function latex(source: string): Uint8Array {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-latex-'));
  writeFileSync(join(folder, 'a.tex'), source);
  for (let run = 0; run < 2; run++)
    execFileSync('pdflatex', ['-interaction=nonstopmode', '-halt-on-error', 'a.tex'], {
      cwd: folder,
      stdio: 'ignore',
    });
  return new Uint8Array(readFileSync(join(folder, 'a.pdf')));
}

/**
 * A page of 400 by 400 points. The base line of its text is at 110 points from above, that of the second line at 140; the
 * marked words begin where the width of those before them says, as pdfTeX set them.
 */
const MARKED = String.raw`\documentclass{article}
\pdfpagewidth=400bp \pdfpageheight=400bp \pdfhorigin=0pt \pdfvorigin=0pt
\makeatletter
\def\bp#1{\strip@pt\dimexpr 0.99626\dimexpr #1\relax\relax}
\def\line@#1{\hbox to 300bp{\kern50bp\vrule width0pt height10bp depth5bp #1\hss}}
\begin{document}
\setbox0=\hbox{The }\setbox2=\hbox{marked words}\setbox4=\hbox{of the second}
\dimen0=50bp \advance\dimen0\wd0 \dimen2=\dimen0 \advance\dimen2\wd2
\dimen4=50bp \dimen6=\dimen4 \advance\dimen6\wd4
\def\annot#1{\rlap{\pdfannot width 10bp height 10bp depth 2bp{#1}}}
\shipout\vbox{\kern100bp
  \line@{\annot{/Subtype /Highlight /C [0.94 0.66 0.63] /T (A reader) /Contents (Is this so?)
      /QuadPoints [\bp{\dimen0} 298 \bp{\dimen2} 298 \bp{\dimen0} 287 \bp{\dimen2} 287]}%
    The marked words stand here.}
  \kern15bp
  \line@{\annot{/Subtype /Underline /C [0.56 0.81 0.69]
      /QuadPoints [\bp{\dimen4} 257 \bp{\dimen6} 257 \bp{\dimen6} 268 \bp{\dimen4} 268]}%
    of the second line nothing is said.}
  \line@{\annot{/Subtype /Text /Contents (A note on the page) /T (A reader)}}}
\end{document}`;

const THESIS = String.raw`\documentclass{book}
\usepackage[hidelinks]{hyperref}
\begin{document}
\frontmatter
\chapter{Thanks}
To the millers.
\mainmatter
\chapter{Tides}\label{tides}
See \href{https://a.example/tides}{the tables} and chapter~\ref{ponds}.
\section{Spring tides}
High.
\chapter{Ponds}\label{ponds}
Low.
\end{document}`;

describe('marks another program made in a PDF', () => {
  it('are read with their words, note, author and colour', async () => {
    const marks = await readMarks(latex(MARKED));
    expect(marks).toEqual([
      {
        leaf: 1,
        words: 'marked words',
        note: 'Is this so?',
        author: 'A reader',
        color: [240, 168, 161],
        onPage: false,
      },
      { leaf: 1, words: 'of the second', note: '', author: '', color: [143, 207, 176], onPage: false },
      { leaf: 1, words: '', note: 'A note on the page', author: 'A reader', color: null, onPage: true },
    ]);
  });
});

describe('a PDF made by pdfTeX', () => {
  let pdf: Uint8Array;
  beforeAll(() => {
    pdf = latex(THESIS);
  });
  it('gives its contents with the leaves they lead to', async () => {
    const labels = (await readPdfText(pdf)).labels!;
    const contents = await readContents(pdf);
    expect(contents.map(({ title, depth, leaf }) => [title, depth, labels[leaf! - 1]])).toEqual([
      ['Thanks', 0, 'i'],
      ['Tides', 0, '1'],
      ['Spring tides', 1, '1'],
      ['Ponds', 0, '3'],
    ]);
  });
  it('gives its links: to addresses, and to its own leaves', async () => {
    const text = await readPdfText(pdf);
    const leaf = text.labels!.indexOf('1') + 1;
    const links = await readLinks(pdf, leaf);
    expect(links.map(({ address, leaf: to }) => address ?? text.labels![to! - 1])).toEqual([
      'https://a.example/tides',
      '3',
    ]);
    const run = text.leaves[leaf - 1]!.runs.find((r) => r.text.includes('tables'))!;
    expect(links[0]!.y).toBeLessThan(run.y);
    expect(links[0]!.y + links[0]!.height).toBeGreaterThan(run.y - 4);
    await expect(readLinks(pdf, 99)).rejects.toThrow('no page 99');
  });
});

describe('our marks in a PDF', () => {
  const WORDS = 'Every pond began to fill';
  const mark = (start: number, end: number) => ({
    id: '019300aa-0000-7000-8000-000000000000',
    on: { start, end },
    note: 'Über alles “fill” ※',
    author: 'You',
    color: [143 / 255, 207 / 255, 176 / 255] as [number, number, number],
    added: '2026-11-26T10:20:30.000Z',
  });
  let bytes: Uint8Array;
  let html: string;
  let at: { start: number; end: number };
  beforeAll(async () => {
    bytes = await DOCUMENTS['estuaryshore.example/pdf/12-2-101.pdf']!.bytes();
    const { leaves, labels } = await readPdfText(bytes);
    html = readingHtml(leaves, printedLabels(leaves, labels));
    const [first] = leavesIn(html);
    const { textOf } = await import('../../src/lib/core/passages');
    const { JSDOM } = await import('jsdom');
    const { text } = textOf(new JSDOM(`<body>${html}</body>`).window.document.body);
    const start = text.indexOf(WORDS);
    expect(start).toBeGreaterThan(-1);
    expect(start).toBeLessThan(first!.end);
    at = { start, end: start + WORDS.length };
  });

  it('are standard annotations to a library that did not write them', async () => {
    const written = await writeMarks(bytes, html, [mark(at.start, at.end)]);
    const document = await PDFDocument.load(written);
    const [page] = document.getPages();
    const annotations = page!.node.lookup(PDFName.of('Annots'), PDFArray);
    const one = annotations.lookup(annotations.size() - 1, PDFDict);
    expect(one.lookup(PDFName.of('Subtype'), PDFName)).toBe(PDFName.of('Highlight'));
    expect(one.lookup(PDFName.of('Contents'), PDFHexString).decodeText()).toBe('Über alles “fill” ※');
    expect(one.lookup(PDFName.of('QuadPoints'), PDFArray).size() % 8).toBe(0);
    const color = one.lookup(PDFName.of('C'), PDFArray);
    expect(color.lookup(1, PDFNumber).asNumber()).toBeCloseTo(207 / 255, 2);
    expect(one.has(PDFName.of('AP'))).toBe(true);
  });
  it('are found again where they were set, and everything else stays', async () => {
    const written = await writeMarks(bytes, html, [mark(at.start, at.end)]);
    const [read, ...more] = await readMarks(written);
    expect(more).toEqual([]);
    expect(read).toMatchObject({ leaf: 1, note: 'Über alles “fill” ※', author: 'You' });
    // Where letters of a line stand is reckoned from its width, so one more or less may be under the mark at an end.
    expect(read!.words).toContain(WORDS.slice(2, -2));
    expect(Math.abs(read!.words.length - WORDS.length)).toBeLessThanOrEqual(2);
    const [before, after] = [await readPdfText(bytes), await readPdfText(written)];
    expect(after.leaves).toEqual(before.leaves);
    expect(after.labels).toEqual(before.labels);
    expect((await drawLeaf(written, 1, 300)).length).toBeGreaterThan(1_000);
  });
  it('of a figure is a square around it, of its colour, with what was said of it', async () => {
    const box = { x: 0.25, y: 0.1, width: 0.5, height: 0.2 };
    const written = await writeMarks(bytes, html, [{ ...mark(0, 0), on: { leaf: 2, box } }]);
    const document = await PDFDocument.load(written);
    const page = document.getPages()[1]!;
    const annotations = page.node.lookup(PDFName.of('Annots'), PDFArray);
    const one = annotations.lookup(annotations.size() - 1, PDFDict);
    expect(one.lookup(PDFName.of('Subtype'), PDFName)).toBe(PDFName.of('Square'));
    const { width, height } = page.getSize();
    const rect = one.lookup(PDFName.of('Rect'), PDFArray).asRectangle();
    // From the left lower corner of the page, where the box is said from the left upper one.
    expect(rect.x).toBeCloseTo(0.25 * width, 1);
    expect(rect.y).toBeCloseTo(0.7 * height, 1);
    expect(rect.width).toBeCloseTo(0.5 * width, 1);
    expect(rect.height).toBeCloseTo(0.2 * height, 1);
    expect(one.lookup(PDFName.of('Contents'), PDFHexString).decodeText()).toBe('Über alles “fill” ※');
    // It is seen: the leaf is drawn otherwise than without it.
    expect(
      Buffer.from(await drawLeaf(written, 2, 300)).equals(Buffer.from(await drawLeaf(bytes, 2, 300))),
    ).toBe(false);
  });
  it('over two leaves are a mark on each, and the file can be marked again', async () => {
    const [first, second] = leavesIn(html);
    const once = await writeMarks(bytes, html, [mark(first!.end - 20, second!.start + 20)]);
    expect((await readMarks(once)).map((m) => m.leaf)).toEqual([1, 2]);
    const twice = await writeMarks(once, html, [mark(at.start, at.end)]);
    expect(await readMarks(twice)).toHaveLength(3);
  });
  it('are refused where the file cannot be written to', async () => {
    await expect(writeMarks(new TextEncoder().encode('no PDF'), html, [])).rejects.toThrow('cannot be');
  });
});
