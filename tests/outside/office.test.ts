/** A draft’s .docx and .odt as LibreOffice reads them. Left out by `scripts/test.sh`, with a word, where it is not installed. */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { formulaAsXml } from '../../src/lib/reading/formulas';
import { draftDocx } from '../../src/lib/server/drafts/docx';
import { at, BLOCKS, CAPTIONED, draft, odtOf, said } from './drafted';

/** What an office suite makes of a document: the OpenDocument text it saves it as. */
function asOffice(file: string): string {
  const run = spawnSync('soffice', [`-env:UserInstallation=file://${at('office')}`, '--headless', '--convert-to', 'fodt', '--outdir', at('read'), at(file)], { encoding: 'utf8', timeout: 110_000 }); // prettier-ignore
  if (run.error) throw run.error;
  if (run.status !== 0) throw new Error(run.stderr);
  return readFileSync(at(`read/${file.replace(/\.\w+$/, '.fodt')}`), 'utf8');
}
const words = (xml: string) =>
  xml.replace(/<text:note-citation[\s\S]*?<\/text:note-citation>/g, '').replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ').trim(); // prettier-ignore
it.each(['docx', 'odt'])('its .%s is read by an office suite as it was written', async (kind) => {
  const out = draft('chicago-fullnote-bibliography', [...BLOCKS, ...CAPTIONED, said({ type: 'formula', attrs: { tex: '\\frac{a}{b}' } })]);
  // Parts are named by their place; what is pointed at stands behind the others here.
  const pointing = out.parts.map((part) => JSON.parse(JSON.stringify(part).replace('"to":"p1"', `"to":"p${BLOCKS.length + 1}"`)) as typeof part);
  const going = { ...out, parts: pointing };
  if (kind === 'docx') writeFileSync(at('office.docx'), await draftDocx(going, 'printed', formulaAsXml));
  else writeFileSync(at('office.odt'), odtOf(going).bytes);
  const read = asOffice(`office.${kind}`);
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
