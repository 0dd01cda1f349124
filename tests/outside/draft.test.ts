/**
 * A draft with its citations printed by us, and the same with citekeys printed by pandoc with the same style: both as plain
 * text, letter by letter; and its .docx as pandoc reads it.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { createPrinter } from '../../src/lib/core/citing';
import {
  citationsOf,
  namesOf,
  readPart,
  type Block,
  type CitedWork,
  type Inline,
} from '../../src/lib/core/drafting';
import { draftOdt, draftToMarkdown, type DraftOut } from '../../src/lib/core/drafting-out';
import type { CslItem } from '../../src/lib/core/source';
import { formulaAsXml } from '../../src/lib/reading/formulas';
import { draftDocx } from '../../src/lib/server/drafts/docx';
import { locale, style, toXml } from './catalogue';

const folder = mkdtempSync(join(tmpdir(), 'retexa-draft-'));
const at = (name: string) => join(folder, name);
const book = (id: string, family: string, year: number, title: string): CslItem => ({ id, type: 'book', title, author: [{ family, given: 'Ada' }], issued: { 'date-parts': [[year]] }, publisher: 'Harbour Press', 'publisher-place': 'Northsound' }); // prettier-ignore
const WORKS = [book('pell', 'Pell', 2001, 'Sluices'), book('ng1', 'Ng', 2020, 'Salt marsh'), book('ng2', 'Ng', 2020, 'Gates'), book('moss', 'Moss', 1999, 'Wheels')]; // prettier-ignore
writeFileSync(at('works.json'), JSON.stringify(WORKS));

let made = 0;
const cite = (...works: CitedWork[]): Inline => ({ type: 'cite', attrs: { id: `c${++made}`, works, named: false } }); // prettier-ignore
const said = (...content: (string | Inline)[]): Block => ({
  type: 'paragraph',
  content: content.map((c) => (typeof c === 'string' ? { type: 'text', text: c } : c)),
});
const page = (label: string, locator: string) => ({ label, locator });
const BLOCKS: Block[] = [
  { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'Gates & ponds' }] },
  said('Mills ground ', cite({ id: 'pell', ...page('page', '33-35') }, { id: 'ng2', ...page('chapter', '1'), prefix: 'see also' }), '.'),
  said('Nobody saw it ', cite({ id: 'pell', withoutAuthor: true }), ' or so ', cite({ id: 'ng1' }, { id: 'ng2' }, { id: 'moss' }), '.'),
  { type: 'blockquote', content: [said('The gates stood open. ', cite({ id: 'moss', ...page('page', '7') }))] },
  said('Again ', cite({ id: 'moss', ...page('page', '7') }), ' and ', cite({ id: 'moss', ...page('page', '8'), suffix: 'emphasis added' }), '.'),
  { type: 'orderedList', content: [{ type: 'listItem', content: [said('One')] }, { type: 'listItem', content: [said('Two ', cite({ id: 'pell' }))] }] },
]; // prettier-ignore

function draft(id: string): DraftOut {
  const parts = BLOCKS.map((content, i) => ({ id: `p${i}`, content }));
  const reads = parts.map(readPart);
  const tree = style(id);
  const inNotes = tree.attrs.class === 'note';
  const { citations, notes } = citationsOf(reads, { notes: inNotes });
  const printed = createPrinter(tree, locale('en-US'), 'en-US').text().set(WORKS, citations);
  return {
    title: 'Tide mills', lang: 'en-US', parts, names: namesOf(reads, 'en-US'), printed: new Map(printed.citations.map((c) => [c.id, c])),
    notes, keys: new Map(WORKS.map((w) => [w.id, w.id])), list: printed.list, pictures: new Map(),
  }; // prettier-ignore
}
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
  const { texts, pictures } = draftOdt(draft('chicago-fullnote-bibliography'), 'printed', formulaAsXml);
  const bytes = zipSync({ ...Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, strToU8(text)])), ...Object.fromEntries(Object.entries(pictures).map(([name, png]) => [name, new Uint8Array(Buffer.from(png, 'base64'))])) }); // prettier-ignore
  writeFileSync(at('draft.odt'), bytes);
  const read = execFileSync('pandoc', [at('draft.odt'), '-t', 'markdown', '--wrap=none'], {
    encoding: 'utf8',
  });
  expect(read).toMatch(/^# (?:\[\]\{#anchor\})?Gates & ponds/m);
  // Pandoc reads no quotation in an .odt, not even in its own.
  expect(texts['content.xml']).toContain('<text:p text:style-name="Quotations">The gates stood open.');
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
