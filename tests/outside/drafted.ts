/** A draft with citations in all its kinds of places, printed in a style, for what outside programs make of it. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
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
import { draftOdt, type DraftOut } from '../../src/lib/core/drafting-out';
import type { CslItem } from '../../src/lib/core/source';
import { formulaAsXml } from '../../src/lib/reading/formulas';
import { locale, style } from './catalogue';

export const folder = mkdtempSync(join(tmpdir(), 'retexa-draft-'));
export const at = (name: string) => join(folder, name);
const book = (id: string, family: string, year: number, title: string): CslItem => ({ id, type: 'book', title, author: [{ family, given: 'Ada' }], issued: { 'date-parts': [[year]] }, publisher: 'Harbour Press', 'publisher-place': 'Northsound' }); // prettier-ignore
const WORKS = [book('pell', 'Pell', 2001, 'Sluices'), book('ng1', 'Ng', 2020, 'Salt marsh'), book('ng2', 'Ng', 2020, 'Gates'), book('moss', 'Moss', 1999, 'Wheels')]; // prettier-ignore
writeFileSync(at('works.json'), JSON.stringify(WORKS));

let made = 0;
export const cite = (...works: CitedWork[]): Inline => ({ type: 'cite', attrs: { id: `c${++made}`, works, named: false } }); // prettier-ignore
export const said = (...content: (string | Inline)[]): Block => ({
  type: 'paragraph',
  content: content.map((c) => (typeof c === 'string' ? { type: 'text', text: c } : c)),
});
const page = (label: string, locator: string) => ({ label, locator });
export const BLOCKS: Block[] = [
  { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'Gates & ponds' }] },
  said('Mills ground ', cite({ id: 'pell', ...page('page', '33-35') }, { id: 'ng2', ...page('chapter', '1'), prefix: 'see also' }), '.'),
  said('Nobody saw it ', cite({ id: 'pell', withoutAuthor: true }), ' or so ', cite({ id: 'ng1' }, { id: 'ng2' }, { id: 'moss' }), '.'),
  { type: 'blockquote', content: [said('The gates stood open. ', cite({ id: 'moss', ...page('page', '7') }))] },
  said('Again ', cite({ id: 'moss', ...page('page', '7') }), ' and ', cite({ id: 'moss', ...page('page', '8'), suffix: 'emphasis added' }), '.'),
  { type: 'orderedList', content: [{ type: 'listItem', content: [said('One')] }, { type: 'listItem', content: [said('Two ', cite({ id: 'pell' }))] }] },
]; // prettier-ignore

const PICTURE = 'd'.repeat(64);
/** A table and a picture of one’s own, whose captions cite, and what points at them. */
export const CAPTIONED: Block[] = [
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

export function draft(id: string, blocks = BLOCKS): DraftOut {
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

/** A draft as an .odt, and what stands in it. */
export function odtOf(out: DraftOut): { bytes: Uint8Array; content: string } {
  const { texts, pictures } = draftOdt(out, 'printed', formulaAsXml);
  const bytes = zipSync({
    ...Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, strToU8(text)])),
    ...Object.fromEntries(
      Object.entries(pictures).map(([name, png]) => [name, new Uint8Array(Buffer.from(png, 'base64'))]),
    ),
  });
  return { bytes, content: texts['content.xml']! };
}
