/**
 * A draft with its citations printed by us, and the same with citekeys printed by pandoc with the same style: both as plain
 * text, letter by letter; and its .docx as pandoc reads it.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { draftToLatex, draftToMarkdown } from '../../src/lib/core/drafting-out';
import { formulaAsXml } from '../../src/lib/reading/formulas';
import { draftDocx } from '../../src/lib/server/drafts/docx';
import { style, toXml } from './catalogue';
import { at, CAPTIONED, draft, folder, odtOf, said } from './drafted';

const plain = (...args: string[]) =>
  execFileSync('pandoc', [...args, '-t', 'plain', '--wrap=none'], { encoding: 'utf8' })
    .replace(/\u00a0/g, ' ')
    .split('\n')
    .filter((line) => line.trim());

describe('a draft with citekeys says to pandoc what it prints itself', () => {
  it.each(['apa', 'ieee', 'american-sociological-association', 'modern-language-association', 'chicago-fullnote-bibliography'])(
    '%s',
    (id) => {
      const out = draft(id);
      writeFileSync(at(`${id}.csl`), toXml(style(id)));
      writeFileSync(at('printed.md'), draftToMarkdown(out, 'printed'));
      writeFileSync(at('keys.md'), draftToMarkdown(out, 'keys').replace('references.json', at('works.json')));
      expect(plain('-f', 'markdown', at('printed.md'))).toEqual(
        plain('-f', 'markdown', '--citeproc', '--csl', at(`${id}.csl`), at('keys.md')),
      );
    },
  ); // prettier-ignore
});

it.each(['apa', 'ieee', 'chicago-fullnote-bibliography'])(
  'captions of tables and pictures that cite do so in their place: %s',
  (id) => {
    const out = draft(id, CAPTIONED);
    writeFileSync(at(`${id}.csl`), toXml(style(id)));
    writeFileSync(at('printed.md'), draftToMarkdown(out, 'printed'));
    writeFileSync(at('keys.md'), draftToMarkdown(out, 'keys').replace('references.json', at('works.json')));
    const read = plain('-f', 'markdown', at('printed.md'));
    expect(read).toEqual(plain('-f', 'markdown', '--citeproc', '--csl', at(`${id}.csl`), at('keys.md')));
    expect(read.join('\n')).toMatch(/Table 1\. Ponds, after ?.*(?:Pell|\[)/);
  },
);

it('notes of captions stand under their numbers in LaTeX, which sets none in what floats', () => {
  for (const citing of ['printed', 'keys'] as const) {
    const tex = draftToLatex(draft('chicago-fullnote-bibliography', CAPTIONED), citing);
    writeFileSync(at('captions.tex'), tex);
    // To pandoc the words of a note are a note: as many as there are citations.
    expect(tex.match(/\\protect\\footnotemark\{\}/g)).toHaveLength(2);
    expect(tex.match(/\\(?:footnotetext|footcitetext)[[{]/g)).toHaveLength(2);
    expect(tex).toContain('\\caption[{Ponds, after}]{Ponds, after\\protect\\footnotemark{}}');
    if (citing === 'printed') {
      const run = spawnSync('pdflatex', ['-interaction=nonstopmode', '-draftmode', 'captions.tex'], { cwd: folder, encoding: 'utf8' }); // prettier-ignore
      const wrong = run.stdout.split('\n').filter((line) => line.startsWith('! '));
      // The picture lies in the archive beside it, which is not unpacked here; and a package may not be installed.
      expect(wrong.filter((line) => !/pictures\/|not found|Emergency stop|==> Fatal/.test(line))).toEqual([]);
    }
  }
});

it('its .docx has headings, quotations, lists and footnotes where they belong', async () => {
  writeFileSync(at('draft.docx'), await draftDocx(draft('chicago-fullnote-bibliography'), 'printed'));
  const read = execFileSync('pandoc', [at('draft.docx'), '-t', 'markdown', '--wrap=none'], {
    encoding: 'utf8',
  });
  expect(read).toMatch(/^# (?:\[\]\{#\w+ \.anchor\})?Gates & ponds/m);
  expect(read).toMatch(/^> The gates stood open\./m);
  expect(read).toMatch(/^1\. {1,2}One/m);
  expect(read).toMatch(/^\[\^1\]: .*Pell, \*Sluices\* \(Northsound: Harbour Press, 2001\), 33/m);
  expect([...read.matchAll(/^\[\^\d+\]:/gm)]).toHaveLength(7);
});

it('its .odt has headings, quotations, lists, a table, formulas and footnotes where they belong', () => {
  const { bytes, content } = odtOf(draft('chicago-fullnote-bibliography'));
  writeFileSync(at('draft.odt'), bytes);
  const read = execFileSync('pandoc', [at('draft.odt'), '-t', 'markdown', '--wrap=none'], {
    encoding: 'utf8',
  });
  expect(read).toMatch(/^# (?:\[\]\{#anchor\})?Gates & ponds/m);
  // Pandoc reads no quotation in an .odt, not even in its own.
  expect(content).toContain('<text:p text:style-name="Quotations">The gates stood open.');
  expect(read).toMatch(/^1\. {1,2}One/m);
  expect(read).toMatch(/^\[\^1\]: .*Pell, \*Sluices\* \(Northsound: Harbour Press, 2001\), 33/m);
  expect([...read.matchAll(/^\[\^\d+\]:/gm)]).toHaveLength(7);
});

/** Formulas as they are typed. A brace below, a group character to Office, is not among them: pandoc reads that as one above. */
const FORMULAS = [
  'h = \\frac{Q}{v b}',
  'x_i^2 + y_{ij} - z^{n+1}',
  '\\sqrt{a + b} \\cdot \\sqrt[3]{x}',
  '\\sum_{i=1}^n x_i^2',
  '\\int_0^1 f(x)',
  '\\left( \\frac{a}{b} \\right)',
  '\\begin{pmatrix} a & b \\\\ c & d \\end{pmatrix}',
  '\\hat{x} + \\overline{ab}',
  'A \\subset B \\cup \\emptyset',
  '\\alpha \\le \\beta \\ne \\infty',
  '\\overbrace{a+b}',
  '\\binom{n}{k}',
  'x > 0 \\text{ if it is so}',
];
it.each(FORMULAS)('a formula in its .docx is to pandoc what pandoc itself makes of it: %s', async (tex) => {
  const read = (file: string) =>
    execFileSync('pandoc', [at(file), '-t', 'markdown', '--wrap=none'], { encoding: 'utf8' })
      .split('\n')
      .filter((line) => line.includes('$'))
      .join('')
      // A blank in words, which pandoc says in two ways.
      .replace(/~|\\ |\s+/g, '');
  const out = draft('apa');
  const parts = [{ id: 'p', content: said('So: ', { type: 'formula', attrs: { tex } }) }];
  writeFileSync(at('formula.docx'), await draftDocx({ ...out, parts }, 'printed', formulaAsXml));
  writeFileSync(at('formula.md'), `So: $${tex}$\n`);
  execFileSync('pandoc', [at('formula.md'), '-o', at('pandoc.docx')]);
  expect(read('formula.docx')).toBe(read('pandoc.docx'));
});
