import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { describe as locate } from '../../core/passages';
import { sourceRecord } from '../../core/source';
import type { Excerpt } from '../../core/text';
import { transaction, type Context } from '../access/context';
import { migrationSource } from '../db/migrations';
import { keyOf, type ItemChange } from '../../core/outline';
import { openDraft, saveDraft } from '../drafts';
import { addProject } from '../projects';
import { changeItems } from '../projects/items';
import { fileSources, insertProject, removeProjects } from '../projects/repository';
import { sectionNamed } from '../projects/sections';
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

  it('finds what one writes in outlines and drafts, where it stands, until it is gone', async () => {
    const { id: projectId } = await addProject(ctx, { name: 'Mills', style: 'apa', locale: 'en-US' });
    const { id: sectionId } = await transaction(ctx, (inner) => sectionNamed(inner, projectId, 'Ponds'));
    const put = await transaction(ctx, (inner) =>
      changeItems(inner, projectId, [
        { act: 'put', sectionId, before: null, items: [{ ref: '', kind: 'sentence', words: 'Ponds were zosterine.' }] },
      ]),
    ); // prettier-ignore
    const ref = put.made[0]!;
    const { id: draftId } = await openDraft(ctx, projectId);
    const write = (base: number | null, text: string) =>
      saveDraft(ctx, draftId, { since: 0, page: 'p', gone: [], order: ['a-part'], puts: [{ id: 'a-part', base, content: { type: 'paragraph', content: [{ type: 'text', text }] } }] }); // prettier-ignore
    await write(null, 'The zosterine mud was deep.');
    const found = async (text: string, project?: string) =>
      (await search(text, project)).texts.items.map(({ label, at, projectId: of, excerpt }) => [label, at, of, ...hits(excerpt)]); // prettier-ignore
    expect(await found('zosterine')).toEqual([
      [
        'Mills, Ponds',
        `/outline?at=${encodeURIComponent(keyOf({ sectionId, ref }))}`,
        projectId,
        'zosterine',
      ],
      ['Mills, draft', '/draft?part=a-part', projectId, 'zosterine'],
    ]);
    expect(await found('zosterine', (await addProject(ctx, { name: 'Other', style: 'apa', locale: 'en-US' })).id)).toEqual([]); // prettier-ignore
    // What only a source has, no text has.
    expect(await found('zosterine author:ng')).toEqual([]);
    const item = { sectionId, ref };
    const said = (change: ItemChange) => transaction(ctx, (inner) => changeItems(inner, projectId, [change]));
    await said({ act: 'write', item, kind: 'sentence', words: 'Ponds were deep.', was: 'Ponds were zosterine.' }); // prettier-ignore
    await write(1, 'The mud was brackish.');
    expect([await found('zosterine'), await found('brackish'), await found('ponds')].map((all) => all.length)).toEqual([0, 1, 1]); // prettier-ignore
    await said({ act: 'take out', items: [item] });
    expect(await found('ponds')).toEqual([]);
    await transaction(ctx, (inner) => removeProjects(inner, [projectId]));
    expect(await db('search_subject').whereIn('kind', ['own', 'part'])).toEqual([]);
  });

  it('finds what was written before that was searched', async () => {
    const old = await openBefore('0036-texts-sought');
    await old('section').insert({ id: 's', library_id: 'l', owner_id: 'p', project_id: 'j', name: 'S', position: 1, created: 'x' }); // prettier-ignore
    await old('placement').insert({ section_id: 's', position: 1, own_id: 'o', own_kind: 'sentence', words: 'Étang' }); // prettier-ignore
    await old('draft').insert({ id: 'd', library_id: 'l', project_id: 'j', revision: 1, created: 'x' });
    const content = JSON.stringify({ type: 'paragraph', content: [{ type: 'text', text: 'Brackish' }] });
    const part = {
      draft_id: 'd',
      position: 1,
      content,
      revision: 1,
      page: 'p',
      person_id: 'p',
      changed: 'x',
    };
    await old('draft_part').insert([
      { ...part, id: 'there', gone: false },
      { ...part, id: 'gone', gone: true },
    ]);
    await old.migrate.latest({ migrationSource });
    const rows = (await old('search')
      .join('search_subject as s', 's.id', 'search.rowid')
      .select('s.kind', 's.subject_id', 'body')) as object[];
    expect(rows).toEqual([
      { kind: 'own', subject_id: 'o', body: 'etang' },
      { kind: 'part', subject_id: 'there', body: 'brackish' },
    ]);
    await old.destroy();
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
