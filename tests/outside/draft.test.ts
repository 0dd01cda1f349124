/**
 * A draft with its citations printed by us, and the same with citekeys printed by pandoc with the same style: both as plain
 * text, letter by letter; and its .docx as pandoc reads it.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { createCanvas } from '@napi-rs/canvas';
import { createPrinter } from '../../src/lib/core/citing';
import {
  citationsOf,
  namesOf,
  readPart,
  worksCited,
  type Block,
  type CitedWork,
  type Inline,
} from '../../src/lib/core/drafting';
import { draftOdt, draftToLatex, draftToMarkdown, type DraftOut } from '../../src/lib/core/drafting-out';
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

const PICTURE = 'd'.repeat(64);
/** A table and a picture of one’s own, whose captions cite, and what points at them. */
const CAPTIONED: Block[] = [
  said('Before ', cite({ id: 'ng1' }), ', see ', { type: 'crossref', attrs: { to: 'p1' } }, '.'),
  {
    type: 'table',
    attrs: { caption: [{ type: 'text', text: 'Ponds, after ' }, cite({ id: 'pell', ...page('page', '12') })] },
    content: [
      { type: 'tableRow', content: [{ type: 'tableHeader', content: [said('Pond')] }, { type: 'tableHeader', content: [said('Acres')] }] },
      { type: 'tableRow', content: [{ type: 'tableCell', content: [said('West')] }, { type: 'tableCell', content: [said('7')] }] },
    ],
  },
  { type: 'figure', attrs: { picture: PICTURE, caption: [{ type: 'text', text: 'Drawn after ' }, cite({ id: 'moss' })], alt: 'A gate, shut', works: [], cite: 'f1' } },
  said('After ', cite({ id: 'pell', ...page('page', '13') }), '.'),
]; // prettier-ignore
const png = () => createCanvas(40, 30).toBuffer('image/png').toString('base64');

function draft(id: string, blocks = BLOCKS): DraftOut {
  const parts = blocks.map((content, i) => ({ id: `p${i}`, content }));
  const reads = parts.map(readPart);
  const tree = style(id);
  const inNotes = tree.attrs.class === 'note';
  const { citations, notes } = citationsOf(reads, { notes: inNotes });
  const printed = createPrinter(tree, locale('en-US'), 'en-US')
    .text()
    .set(
      WORKS.filter((w) => worksCited(reads).includes(w.id)),
      citations,
    );
  return {
    title: 'Tide mills', lang: 'en-US', parts, names: namesOf(reads, 'en-US'), printed: new Map(printed.citations.map((c) => [c.id, c])),
    notes, keys: new Map(WORKS.map((w) => [w.id, w.id])), list: printed.list, pictures: new Map([[PICTURE, { png: png(), width: 40, height: 30 }]]),
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

/** What an office suite makes of a document: the OpenDocument text it saves it as. Nothing where none is installed. */
function asOffice(file: string): string | undefined {
  const run = spawnSync('soffice', [`-env:UserInstallation=file://${at('office')}`, '--headless', '--convert-to', 'fodt', '--outdir', at('read'), at(file)], { encoding: 'utf8', timeout: 110_000 }); // prettier-ignore
  if (run.error && 'code' in run.error && run.error.code === 'ENOENT') return undefined;
  if (run.status !== 0) throw new Error(run.stderr);
  return readFileSync(at(`read/${file.replace(/\.\w+$/, '.fodt')}`), 'utf8');
}
const words = (xml: string) =>
  xml.replace(/<text:note-citation[\s\S]*?<\/text:note-citation>/g, '').replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ').trim(); // prettier-ignore
const office = spawnSync('soffice', ['--version']).error === undefined;
if (!office)
  console.log('Left out: what an office suite reads in .docx and .odt, since LibreOffice is not installed.');
it.skipIf(!office).each(['docx', 'odt'])('its .%s is read by an office suite as it was written', async (kind) => {
  const out = draft('chicago-fullnote-bibliography', [...BLOCKS, ...CAPTIONED, said({ type: 'formula', attrs: { tex: '\\frac{a}{b}' } })]);
  // Parts are named by their place; what is pointed at stands behind the others here.
  const pointing = out.parts.map((part) => JSON.parse(JSON.stringify(part).replace('"to":"p1"', `"to":"p${BLOCKS.length + 1}"`)) as typeof part);
  const going = { ...out, parts: pointing };
  if (kind === 'docx') writeFileSync(at('office.docx'), await draftDocx(going, 'printed', formulaAsXml));
  else {
    const { texts, pictures } = draftOdt(going, 'printed', formulaAsXml);
    writeFileSync(at('office.odt'), zipSync({ mimetype: [strToU8(texts.mimetype!), { level: 0 }], ...Object.fromEntries(Object.entries(texts).filter(([n]) => n !== 'mimetype').map(([name, text]) => [name, strToU8(text)])), ...Object.fromEntries(Object.entries(pictures).map(([name, b64]) => [name, new Uint8Array(Buffer.from(b64, 'base64'))])) }));
  }
  const read = asOffice(`office.${kind}`)!;
  const notes = [...read.matchAll(/<text:note-body>([\s\S]*?)<\/text:note-body>/g)].map((m) => words(m[1]!));
  expect(notes).toHaveLength(out.notes.size);
  expect(notes[0]).toMatch(/^Ada Pell, Sluices \(Northsound: Harbour Press, 2001\), 33/);
  // In the order they are read: before the table, of its caption, of the picture’s, and after.
  expect(notes.slice(-4).map((note) => /\w+(?= ?,)/.exec(note)?.[0])).toEqual(['Ng', 'Pell', 'Moss', 'Pell']);
  const headings = [...read.matchAll(/<text:h [^>]*text:outline-level="(\d)"[^>]*>([\s\S]*?)<\/text:h>/g)].map((m) => [m[1], words(m[2]!)]);
  expect(headings[0]).toEqual(['1', 'Gates &amp; ponds']);
  expect(words(read)).toMatch(/Table 1 ?\. Ponds, after/);
  expect(words(read)).toMatch(/Figure 1 ?\. Drawn after/);
  // What points at the table leads to it, the picture has its words, the formula is one.
  expect(read).toMatch(kind === 'odt' ? /<text:bookmark-ref [^>]*>Table 1</ : /<text:a [^>]*xlink:href="#\w+"[^>]*>(?:<[^>]*>)*Table 1/);
  expect(read).toMatch(/<svg:(?:title|desc)>[^<]*A gate, shut/);
  // Formulas are another program of the suite, which may be missing.
  if (existsSync('/usr/lib/libreoffice/program/libsmlo.so')) expect(read).toContain('<draw:object');
  expect(read).toMatch(/fo:text-indent="-/);
}, 240_000); // prettier-ignore

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
