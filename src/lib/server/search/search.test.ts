import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { describe as locate } from '../../core/passages';
import { sourceRecord } from '../../core/source';
import type { Excerpt } from '../../core/text';
import { transaction, type Context } from '../access/context';
import { migrationSource } from '../db/migrations';
import { fileSources, insertProject } from '../projects/repository';
import { insertSource } from '../sources/repository';
import { keepLeads } from '../leads';
import { binNote, keepNote } from '../notes';
import { keepPassage } from '../passages';
import { searchEverything } from './index';
import { binSources } from '../sources';
import { keepTestCopy, openBefore, openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const look = { style: 'apa', locale: 'en-US' };
const add = (title: string) =>
  transaction(ctx, (inner) =>
    insertSource(inner, sourceRecord.parse({ type: 'book', title, author: [{ family: 'Ng' }] }), {
      why: 'test',
    }),
  );
const copyFor = (sourceId: string, text: string, captured = '2026-01-01') =>
  keepTestCopy(ctx, sourceId, { address: `https://a.example/${sourceId}`, captured, text });
const search = (text: string, projectId?: string) => searchEverything(ctx, text, look, { projectId });
const totals = async (text: string, projectId?: string) => {
  const { sources, passages, copies, notes, leads } = await search(text, projectId);
  return [sources, passages, copies, notes, leads].map((f) => f.total);
};
const hits = (excerpt: Excerpt) => excerpt.parts.filter((p) => p.hit).map((p) => p.text);

describe('searching everything', () => {
  it('finds words in sources, passages, the text of copies, notes and leads, and narrows to a project', async () => {
    const { id } = await add('Sluices');
    const other = await add('The étang of mills');
    const text = 'The étang filled in six years.';
    const copy = await copyFor(id, text);
    await keepPassage(ctx, {
      kind: 'quotation',
      tint: 'claim',
      gist: 'Ponds silt up',
      ownWords: '',
      locator: { label: 'page', value: '7' },
      visibility: 'library',
      copyId: copy.id,
      selectors: locate(text, 4, 16),
    });
    const project = await insertProject(ctx, { name: 'P', ...look });
    await fileSources(ctx, project.id, [id]);
    await keepNote(ctx, { body: 'Ask about the Étang', sourceId: null, projectId: null });
    await keepLeads(ctx, { text: 'Costa, I. Etangs. 1999.', projectId: null, metIn: null });

    expect(await totals('ETANG')).toEqual([1, 1, 1, 1, 1]);
    expect(await totals('etang', project.id)).toEqual([0, 1, 1, 0, 0]);
    expect(await totals('windmill')).toEqual([0, 0, 0, 0, 0]);
    expect(await totals(' – ')).toEqual([0, 0, 0, 0, 0]);

    const found = await search('etang');
    expect(found.sources.items[0]!.id).toBe(other.id);
    expect(found.passages.items[0]).toMatchObject({
      sourceId: id,
      copyId: copy.id,
      locator: { value: '7' },
      label: 'Quotation',
    });
    expect(hits(found.passages.items[0]!.excerpt)).toEqual(['étang']);
    expect(hits(found.notes.items[0]!.excerpt)).toEqual(['Étang']);
    expect(hits(found.leads.items[0]!.excerpt)).toEqual(['Etangs']);
    expect(found.copies.items[0]).toMatchObject({ copyId: copy.id, excerpt: { exact: 'étang' } });
  });

  it('leaves out what is in the bin, and earlier captures of a page', async () => {
    const { id } = await add('Sluices');
    await copyFor(id, 'The pond was deep.', '2026-01-01');
    const latest = await copyFor(id, 'The pond is shallow.', '2026-02-01');
    const note = await keepNote(ctx, { body: 'pond', sourceId: null, projectId: null });
    expect((await search('pond')).copies.items.map((c) => c.id)).toEqual([latest.id]);
    expect(await totals('pond')).toEqual([0, 0, 1, 1, 0]);
    await binSources(ctx, [id], true);
    await binNote(ctx, note.id, true);
    expect(await totals('pond')).toEqual([0, 0, 0, 0, 0]);
  });

  it('gives the first of many and says how many there are', async () => {
    for (let i = 0; i < 5; i++) await keepNote(ctx, { body: `pond ${i}`, sourceId: null, projectId: null });
    const few = await searchEverything(ctx, 'pond', look, { limit: 2 });
    expect([few.notes.total, few.notes.items.length]).toEqual([5, 2]);
    const all = await searchEverything(ctx, 'pond', look, { limit: 2, limits: { notes: 300 } });
    expect(all.notes.items).toHaveLength(5);
  });

  it('finds the text of copies that were there before it was searched', async () => {
    const old = await openBefore('0005-search-copies');
    const row = {
      library_id: 'l', owner_id: 'p', source_id: 's', kind: 'page', media_type: 'text/html', sha256: 'a', size: 1,
      reading_sha256: 'b', title: '', address: '', captured: 'x',
    }; // prettier-ignore
    await old('copy').insert([
      { ...row, id: 'c', text: 'Étang-de-Berre' },
      { ...row, id: 'd', text: '' },
    ]);
    await old.migrate.latest({ migrationSource });
    expect(await old('search_subject').select('kind', 'subject_id')).toEqual([
      { kind: 'copy', subject_id: 'c' },
    ]);
    expect(await old('search').select('body')).toEqual([{ body: 'etang de berre' }]);
    await old.destroy();
  });
});
