/** Outlines as files, cited in a style. */
import { unzipSync } from 'fflate';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { keepPassage } from '../passages';
import { addProject, changeOutline, itemsOfOutline, listSections, makeSection } from '../projects';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { closePools } from '../workers/pools';
import { readOutlineInto, writeOutline } from './index';

let db: Knex;
let ctx: Context;
let projectId: string;
const look = { style: 'apa', locale: 'en-US' };

beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  projectId = (await addProject(ctx, { name: 'Tide mills', ...look })).id;
  const add = (family: string, title: string) =>
    transaction(ctx, async (inner) => {
      const record = sourceRecord.parse({ type: 'book', title, author: [{ family, given: 'A.' }], issued: { 'date-parts': [[2001]] }, publisher: 'Harbour Press' }); // prettier-ignore
      return (await insertSource(inner, record, { why: 'test' })).id;
    });
  const [sluices, silt] = [await add('Pell', 'Sluices'), await add('Pell', 'Silt')];
  const { id: quote } = await keepPassage(ctx, {
    copyId: null, sourceId: sluices, kind: 'quotation', tint: 'claim', exact: 'The gates stood open.', gist: 'Open for years', ownWords: '', locator: { label: 'page', value: '7' }, visibility: 'library', selectors: null,
  }); // prettier-ignore
  const works = (await makeSection(ctx, projectId, 'How they work')).id;
  const gates = (await makeSection(ctx, projectId, 'Gates', works)).id;
  await changeOutline(ctx, projectId, {
    changes: [
      { act: 'put', sectionId: works, before: null, items: [{ ref: 'x', kind: 'sentence', words: 'Mills ground.' }, { ref: quote, kind: 'passage' }] },
      { act: 'put', sectionId: gates, before: null, items: [{ ref: silt, kind: 'source' }, { ref: 'x', kind: 'question', words: 'Who shut them?' }] },
    ],
  }); // prettier-ignore
});
afterEach(() => db.destroy());
afterAll(() => closePools());

const write = (as: Parameters<typeof writeOutline>[2]['as'], quotations = true) =>
  writeOutline(ctx, projectId, { as, quotations }, look);

it('prints what stands there in order, told apart over all of it, with the references behind', async () => {
  const { body, name } = await write('markdown');
  expect(name).toBe('outline.md');
  expect(body.trimEnd().split('\n\n')).toEqual([
    '# Tide mills',
    '## How they work',
    'Mills ground.',
    '> “The gates stood open.” (Pell, 2001b, p. 7)',
    'Open for years',
    '### Gates',
    '- Silt (Pell, 2001a)',
    'Who shut them?',
    '## References',
    'Pell, A. (2001a). *Silt*. Harbour Press.',
    'Pell, A. (2001b). *Sluices*. Harbour Press.',
  ]);
  expect((await write('markdown', false)).body).toContain('Open for years (Pell, 2001b, p. 7)');
});

it('has true headings in a .docx', async () => {
  const { body } = await write('docx');
  const parts = unzipSync(Buffer.from(body, 'base64'));
  const xml = new TextDecoder().decode(parts['word/document.xml']);
  const headings = [...xml.matchAll(/w:pStyle w:val="(Heading\d)".*?<w:t[^>]*>([^<]*)</g)];
  expect(headings.map((m) => `${m[1]} ${m[2]}`)).toEqual([
    'Heading1 Tide mills',
    'Heading2 How they work',
    'Heading3 Gates',
    'Heading2 References',
  ]);
});

it('is of a project of the library', async () => {
  await expect(writeOutline(ctx, 'nowhere', { as: 'opml', quotations: true }, look)).rejects.toMatchObject({
    status: 404,
  });
});

const headings = async () => (await listSections(ctx)).map((s) => '.'.repeat(s.depth) + s.name);

it('is read from a file behind what is there, and taken away again', async () => {
  const text = '# New\n\nSaid here.\n\n## Under it\n\nWhy?\n\n# Last\n';
  const { back, sections, said } = await readOutlineInto(ctx, projectId, { name: 'a.md', text });
  expect([sections, said]).toEqual([3, 2]);
  expect(await headings()).toEqual(['How they work', '.Gates', 'New', '.Under it', 'Last']);
  expect((await itemsOfOutline(ctx, projectId)).flatMap((i) => i.words ?? []).sort()).toEqual(['Mills ground.', 'Said here.', 'Who shut them?', 'Why?']); // prettier-ignore
  await readOutlineInto(ctx, projectId, back!);
  expect(await headings()).toEqual(['How they work', '.Gates']);
});

it('is read again from the OPML it was written to', async () => {
  const { body } = await write('opml');
  await readOutlineInto(ctx, projectId, { name: 'outline.opml', text: body });
  expect(await headings()).toEqual(['How they work', '.Gates', 'How they work', '.Gates']);
});

it('refuses what is no outline, and adds nothing', async () => {
  for (const [name, text, words] of [
    ['a.md', '', 'no headings'],
    ['a.opml', '<opml><body>', 'could not be read as OPML'],
    ['a.opml', '<x/>', 'no body'],
    ['a.md', '# A\n\n'.repeat(5_001), 'at most 5,000'],
  ] as const)
    await expect(readOutlineInto(ctx, projectId, { name, text })).rejects.toThrow(words);
  expect(await headings()).toEqual(['How they work', '.Gates']);
});
