import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Knex } from 'knex';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { contextOf, defaultContext, makePerson, transaction, type Context } from '../access/context';
import { addChoice, saidIn, listChoices, vote } from '../choosing';
import { newId } from '../db/ids';
import { KEPT_IN } from '../db/of-library';
import { openDatabase } from '../db/open';
import { draftSince, openDraft, saveDraft } from '../drafts';
import { merge, undoMerge } from '../duplicates';
import { NAMED } from '../files/named';
import { keepNote, listNotes } from '../notes';
import { keepPassage, listPassages } from '../passages';
import { fileSources, insertProject } from '../projects/repository';
import { sectionNamed } from '../projects/sections';
import { addReply } from '../replies';
import { searchEverything } from '../search';
import { insertSource } from '../sources/repository';
import { recount } from '../sources/tallies';
import { keepTestCopy } from '../test-library';
import { bringLibrary, filesNamed, LEFT, librariesIn } from './brought';

const work = mkdtempSync(join(tmpdir(), 'retexa-brought-'));
let db: Knex;
let bag: Database.Database;
let ada: Context;
let ben: Context;
let there: Record<'source' | 'twin' | 'project' | 'draft' | 'choice', string>;
let n = 0;

const opened = (name = `${n}`) => new Database(join(work, `${name}.sqlite`), { readonly: true });
const account = (db: Knex, person_id: string, mail: string) =>
  db('account').insert({ person_id, mail, phrase: 'x', keeper: false, made: 'x' });
const passage = (sourceId: string, exact: string, visibility: 'library' | 'private') =>
  ({ copyId: null, sourceId, selectors: null, exact, kind: 'quotation', gist: '', ownWords: '', tint: 'claim', locator: null, visibility }) as const; // prettier-ignore

beforeEach(async () => {
  db = await openDatabase(join(work, `${++n}.sqlite`));
  ada = await defaultContext(db);
  await db('person').where({ id: ada.personId }).update({ name: 'Ada' });
  const { personId } = await makePerson(db, 'Ben');
  ben = { ...ada, personId, role: 'editor' };
  await db('membership').insert({ library_id: ada.libraryId, person_id: personId, role: 'editor' });
  await account(db, ada.personId, 'ada@harbour.example');
  await account(db, ben.personId, 'ben@harbour.example');
  const added = (title: string) =>
    transaction(ada, async (inner) => {
      const record = sourceRecord.parse({ type: 'book', title, author: [{ family: 'Pell', given: 'M.' }], retexa: { tags: ['tide'] } }); // prettier-ignore
      return (await insertSource(inner, record, { why: 'test' })).id;
    });
  const [source, twin] = [await added('Sluices of the north'), await added('Sluices of the north')];
  there = await transaction(ada, async (ctx) => {
    const project = await insertProject(ctx, { name: 'Mills', style: 'apa', locale: 'en-US' });
    await fileSources(ctx, project.id, [source, twin]);
    const section = await sectionNamed(ctx, project.id, 'Ponds');
    await ctx.db('placement').insert({ section_id: section.id, position: 1, source_id: source });
    await ctx.db('placement').insert({ section_id: section.id, position: 2, own_id: newId(), own_kind: 'sentence', words: 'Own' }); // prettier-ignore
    await keepTestCopy(ctx, source, { sha256: 'a'.repeat(64), reading_sha256: 'b'.repeat(64), text: 'eelgrass' }); // prettier-ignore
    const draft = await openDraft(ctx, project.id);
    return { source, twin, project: project.id, draft: draft.id, choice: '' };
  });
  await saveDraft(ada, there.draft, { since: 0, page: 'p', gone: [], order: ['part-one'], puts: [{ id: 'part-one', base: null, content: { type: 'paragraph', attrs: { id: 'part-one' }, content: [{ type: 'text', text: 'The tide' }] } }] }); // prettier-ignore
  await keepPassage(ben, passage(there.source, 'zostera', 'private'));
  const { id } = await keepPassage(ada, passage(there.source, 'pond', 'library'));
  await addReply(ben, id, { text: 'See @Ada', to: [ada.personId] });
  await keepNote(ada, { body: `On /sources/${there.source}`, projectId: there.project, sourceId: null });
  there.choice = (await addChoice(ada, { name: 'Which', way: 'opinion', voters: [ada.personId, ben.personId], reasons: [], ids: [there.source] })).id; // prettier-ignore
  await vote(ada, there.choice, { id: there.source, says: 'keep', reason: '' });
  await db.raw('VACUUM INTO ?', [join(work, `${n}-copy.sqlite`)]);
  bag = opened(`${n}-copy`);
});
afterEach(async () => {
  bag.close();
  await db.destroy();
});
afterAll(() => rmSync(work, { recursive: true, force: true }));

const rowsIn = (from: Database.Database, table: string, libraryId: string) =>
  from
    .prepare(`SELECT ${table === 'search' ? 'rowid, *' : '*'} FROM "${table}" WHERE ${KEPT_IN[table]}`)
    .all(libraryId) as Record<string, unknown>[];
const tallies = async (db: Knex) =>
  JSON.stringify(
    await db('tally').whereNot({ n: 0 }).orderBy(['library_id', 'project_id', 'person_id', 'what']),
  );

describe('a library brought in from a backup', () => {
  it('knows of every table whether it comes, and takes what it comes by from where files are named', () => {
    const tables = bag
      .prepare(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'knex_%' AND name NOT GLOB 'search_[cdi]*'",
      )
      .pluck()
      .all() as string[];
    expect(tables.sort()).toEqual([...Object.keys(KEPT_IN), ...LEFT].sort());
    for (const table of tables)
      for (const { name } of bag.pragma(`table_info("${table}")`) as { name: string }[])
        if (/sha256$/.test(name) && table !== 'leaving_file') expect(NAMED).toContainEqual([table, name]);
    expect([...filesNamed(bag, ada.libraryId)].sort()).toEqual(['a'.repeat(64), 'b'.repeat(64)]);
    expect(librariesIn(bag).find(({ id }) => id === ada.libraryId)).toMatchObject({
      sources: 2,
      passages: 2,
      documents: 1,
      people: [{ name: 'Ada' }, { name: 'Ben' }],
    });
  });

  it('on another server, is what it was, row by row, for who is known there by mail', async () => {
    const other = await openDatabase(':memory:');
    const keeper = await defaultContext(other);
    await account(other, keeper.personId, 'keeper@quay.example');
    const { personId: benThere } = await makePerson(other, 'Benjamin');
    await account(other, benThere, 'ben@harbour.example');
    const came = await bringLibrary(other, bag, ada.libraryId, { personId: keeper.personId, copiedOn: '2026-11-28' }); // prettier-ignore
    // Nobody who owned it is known there, so whoever brought it does.
    expect(came).toMatchObject({ libraryId: ada.libraryId, name: 'My library', sources: 2 });
    expect(came.people.sort()).toEqual(['Benjamin', 'You']);
    for (const table of Object.keys(KEPT_IN)) {
      const columns = table === 'search' ? ['rowid', '*'] : ['*'];
      const now = (await other(table).select(columns).whereRaw(KEPT_IN[table]!, [ada.libraryId])) as object[];
      const was = rowsIn(bag, table, ada.libraryId);
      const sorted = (rows: object[]) =>
        rows
          .map((row) => JSON.stringify(Object.entries(row).sort()).replaceAll(ben.personId, benThere))
          .sort();
      expect({ table, rows: sorted(now) }).toEqual({ table, rows: sorted(was) });
    }
    const seen = async (ctx: Context) =>
      (await listPassages(ctx, {}, 10)).items.map(({ exact }) => exact).sort();
    expect(await seen((await contextOf(other, ada.libraryId, keeper.personId))!)).toEqual(['pond']);
    expect(await seen((await contextOf(other, ada.libraryId, benThere))!)).toEqual(['pond', 'zostera']);
    await other.destroy();
  });

  it('where it is here already, stands beside it, with ids of its own wherever they are said', async () => {
    // What was done since the backup, and who left since.
    await db('library').where({ id: ada.libraryId }).update({ name: 'Called otherwise since' });
    await db('membership').where({ library_id: ada.libraryId, person_id: ben.personId }).delete();
    const before = await db('source').where({ library_id: ada.libraryId }).orderBy('id');
    const came = await bringLibrary(db, bag, ada.libraryId, { personId: ada.personId, copiedOn: '2026-11-28' }); // prettier-ignore
    expect(came).toMatchObject({ name: 'My library (2026-11-28)', people: ['Ada'] });
    expect(await db('source').where({ library_id: ada.libraryId }).orderBy('id')).toEqual(before);
    const now = opened();
    const idsIn = (rows: unknown) =>
      JSON.stringify(rows).match(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}|part-one/g) ?? [];
    const people = new Set([ada.personId, ben.personId]);
    const old = new Set(Object.keys(KEPT_IN).flatMap((table) => idsIn(rowsIn(bag, table, ada.libraryId))));
    for (const table of Object.keys(KEPT_IN)) {
      const rows = rowsIn(now, table, came.libraryId);
      expect({ table, n: rows.length }).toEqual({ table, n: rowsIn(bag, table, ada.libraryId).length });
      expect({ table, old: idsIn(rows).filter((id) => old.has(id) && !people.has(id)) }).toEqual({
        table,
        old: [],
      });
    }
    expect(now.pragma('foreign_key_check')).toEqual([]);
    now.close();
    const kept = await tallies(db);
    await recount(db);
    expect(await tallies(db)).toBe(kept);
    const ctx = (await contextOf(db, came.libraryId, ada.personId))!;
    const look = { style: 'apa', locale: 'en-US' };
    expect((await searchEverything(ctx, 'eelgrass', look, {})).copies.total).toBe(1);
    const [note] = await listNotes(ctx, {});
    const [source] = (await db('source').where({ library_id: came.libraryId }).orderBy('id')) as { id: string }[]; // prettier-ignore
    expect(note!.body).toBe(`On /sources/${source!.id}`);
    const [choice] = await listChoices(ctx);
    expect((await saidIn(ctx, choice!.id)).votes).toMatchObject([{ candidate: source!.id, says: 'keep' }]);
    const { id: draft } = (await db('draft').where({ library_id: came.libraryId }).first('id')) as { id: string }; // prettier-ignore
    expect(JSON.stringify(await draftSince(ctx, draft, 0))).toContain('The tide');
    // It is worked with as any other.
    const [a, b] = (await db('source').where({ library_id: came.libraryId })) as { id: string }[];
    const asBrought = await tallies(db);
    await undoMerge(ctx, await merge(ctx, { ids: [a!.id, b!.id], bases: [1, 1] }));
    expect(await tallies(db)).toBe(asBrought);
  });

  it('that fails leaves nothing', async () => {
    const kept = JSON.stringify(await db('library'));
    const { personId } = ada;
    await db.raw(
      `CREATE TRIGGER full BEFORE INSERT ON search_subject BEGIN SELECT RAISE(ABORT, 'full'); END`,
    );
    await expect(bringLibrary(db, bag, ada.libraryId, { personId, copiedOn: 'x' })).rejects.toThrow('full');
    expect(JSON.stringify(await db('library'))).toBe(kept);
    expect(await db('audit').where({ act: 'brought in' })).toEqual([]);
  });

  it('is whose they say where nobody has an account', async () => {
    const other = await openDatabase(':memory:');
    const alone = await defaultContext(other);
    const given = { personId: alone.personId, copiedOn: 'x' };
    await bringLibrary(other, bag, ada.libraryId, { ...given, as: ben.personId });
    const ctx = (await contextOf(other, ada.libraryId, alone.personId))!;
    expect(ctx.role).toBe('owner');
    expect((await listPassages(ctx, {}, 10)).total).toBe(2);
    await other.destroy();
    // Where people have accounts, nobody says they are another, and reads what that one keeps for themselves.
    const shared = await openDatabase(':memory:');
    const keeper = await defaultContext(shared);
    await account(shared, keeper.personId, 'keeper@quay.example');
    await bringLibrary(shared, bag, ada.libraryId, {
      personId: keeper.personId,
      copiedOn: 'x',
      as: ben.personId,
    });
    const seen = await listPassages((await contextOf(shared, ada.libraryId, keeper.personId))!, {}, 10);
    expect(seen.items.map(({ exact }) => exact)).toEqual(['pond']);
    await shared.destroy();
  });
});
