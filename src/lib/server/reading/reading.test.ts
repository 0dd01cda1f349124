/** How far each person is with a source: theirs alone, found by queries, counted and taken back. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { transaction, type Context } from '../access/context';
import { facetsOf, listIds } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { keepReading, readingOf } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = (title: string) =>
  transaction(ctx, async (inner) => {
    const record = { type: 'book' as const, title, retexa: { origins: {}, tags: [], kept: {} } };
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const found = async (of: Context, text: string) => (await listIds(of, { text })).sort();
const colleague = async (): Promise<Context> => {
  await db('person').insert({ id: 'q', name: 'Q', created: 'x' });
  await db('membership').insert({ library_id: ctx.libraryId, person_id: 'q', role: 'reader' });
  return { ...ctx, personId: 'q', role: 'reader' };
};

it('is kept, found by queries and counted, and what takes it back gives each its own', async () => {
  const [a, b, c] = [await add('A'), await add('B'), await add('C')];
  await keepReading(ctx, { ids: [a!], state: 'reading', priority: 'high' });
  const { back } = await keepReading(ctx, { ids: [a!, b!], state: 'read' });
  expect(await found(ctx, 'reading:read')).toEqual([a, b].sort());
  expect(await found(ctx, 'reading:read priority:high')).toEqual([a]);
  expect(await found(ctx, 'reading:none')).toEqual([c]);
  expect(await found(ctx, '-reading:read,none')).toEqual([]);
  const counts = (await facetsOf(ctx, {})).find((f) => f.field === 'reading')!.values;
  expect(counts).toEqual([{ value: 'read', n: 2 }]);
  await keepReading(ctx, back);
  expect(await readingOf(ctx, [a!, b!])).toEqual(new Map([[a, { state: 'reading', priority: 'high' }]]));
  expect((await keepReading(ctx, { ids: [a!], state: 'reading' })).back.each).toEqual([]);
});

it('is each person’s own, and who only reads has it too', async () => {
  const a = await add('A');
  const other = await colleague();
  await keepReading(other, { ids: [a], state: 'to-read' });
  expect(await found(ctx, 'reading:to-read')).toEqual([]);
  expect(await found(other, 'reading:to-read')).toEqual([a]);
  expect((await readingOf(ctx, [a])).size).toBe(0);
  await expect(keepReading(other, { ids: ['nothing'], state: 'read' })).rejects.toMatchObject({
    code: 'not-here',
  });
});
