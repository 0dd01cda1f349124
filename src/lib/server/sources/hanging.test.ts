import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { merge, undoMerge } from '../duplicates';
import { fileSources, insertProject } from '../projects/repository';
import { placeSources, sectionNamed } from '../projects/sections';
import { openTestLibrary } from '../test-library';
import { HANGING } from './hanging';
import { insertSource } from './repository';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = (title: string) =>
  transaction(ctx, (inner) =>
    insertSource(inner, sourceRecord.parse({ type: 'book', title }), { why: 'test' }),
  );

describe('what hangs on a source', () => {
  it('is declared for every column of the schema that points at one and is not removed with it', async () => {
    const tables = (await db('sqlite_master').where({ type: 'table' }).select('name')) as { name: string }[];
    const pointing: string[] = [];
    for (const { name } of tables) {
      const keys = (await db.raw(`PRAGMA foreign_key_list(${name})`)) as {
        table: string;
        from: string;
        on_delete: string;
      }[];
      for (const key of keys)
        if (key.table === 'source' && key.on_delete !== 'CASCADE') pointing.push(`${name}.${key.from}`);
    }
    const declared = HANGING.flatMap(({ table, column, other }) =>
      [column, ...(other ? [other] : [])].map((end) => `${table}.${end}`),
    );
    expect(pointing.length).toBeGreaterThan(10);
    expect(declared).toEqual(expect.arrayContaining(pointing));
  });

  it('is found by its source, whatever points at one: SQLite looks there when a source goes', async () => {
    const tables = (await db('sqlite_master').where({ type: 'table' }).pluck('name')) as string[];
    for (const table of tables)
      for (const { table: to, from } of (await db.raw(`PRAGMA foreign_key_list("${table}")`)) as {
        table: string;
        from: string;
      }[]) {
        if (to !== 'source') continue;
        const [plan] = (await db.raw(
          `EXPLAIN QUERY PLAN SELECT 1 FROM "${table}" WHERE "${from}" = 'x'`,
        )) as {
          detail: string;
        }[];
        expect({ table, from, plan: plan!.detail }).toMatchObject({
          plan: expect.stringMatching(/^SEARCH/) as string,
        });
      }
  });

  it('comes back when a merge is undone; what came to the survivor since stays there', async () => {
    const [a, b] = [await add('Tide mills'), await add('Tide mills of Brittany')];
    const projects = [];
    for (const name of ['of both', 'of the absorbed', 'filed since', 'gone since'])
      projects.push((await insertProject(ctx, { name, style: 'apa', locale: 'en-US' })).id);
    const [both, absorbed, since, gone] = projects as [string, string, string, string];
    await fileSources(ctx, both, [a.id, b.id]);
    for (const project of [absorbed, gone]) await fileSources(ctx, project, [b.id]);
    const section = await sectionNamed(ctx, both, 'Ponds');
    await placeSources(ctx, section.id, [b.id]);
    const filings = () => db('filing').orderBy(['project_id', 'source_id']) as unknown as Promise<unknown[]>;
    const placements = () => db('placement').select() as unknown as Promise<unknown[]>;
    const [filedBefore, placedBefore] = [await filings(), await placements()];

    const id = await merge(ctx, { ids: [a.id, b.id], bases: [1, 1] });
    expect((await db('filing').select('source_id').distinct()) as unknown).toEqual([{ source_id: a.id }]);
    await fileSources(ctx, since, [a.id]);
    await db('filing').where({ project_id: gone }).delete();
    await db('project').where({ id: gone }).delete();
    await undoMerge(ctx, id);

    const filedSince = await db('filing').where({ project_id: since });
    expect(filedSince).toMatchObject([{ source_id: a.id }]);
    expect(await filings()).toEqual(
      [
        ...(filedBefore as { project_id: string; source_id: string }[]).filter((f) => f.project_id !== gone),
        ...(filedSince as { project_id: string; source_id: string }[]),
      ].sort((x, y) => (x.project_id + x.source_id < y.project_id + y.source_id ? -1 : 1)),
    );
    expect(await placements()).toEqual(placedBefore);
  });
});
