/** What the Desk draws, of sources added on known days. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { transaction, type Context } from '../access/context';
import { changePlaced, makeSection } from '../projects';
import { insertProject } from '../projects/repository';
import { keepReading } from '../reading';
import { binSources, listIds } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { chartsOf } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const add = async (title: string, added: string) => {
  const record = { type: 'book' as const, title, retexa: { origins: {}, tags: [], kept: {} } };
  const { id } = await transaction(ctx, (inner) => insertSource(inner, record, { why: 'test' }));
  await db('source').where({ id }).update({ added });
  return id;
};

it('counts what was added from Monday to Sunday, and each week is a query that finds as many', async () => {
  // 2026-11-27 is a Friday: its week is from the 23rd to the 29th (ISO 8601).
  for (const [i, time] of [
    '2026-11-23T00:00:00.000Z',
    '2026-11-29T23:59:59.999Z',
    '2026-11-22T23:59:59.999Z',
    '2026-08-10T12:00:00.000Z',
    '2026-08-09T12:00:00.000Z',
  ].entries())
    await add(`Title ${i}`, time);
  const { weeks } = await chartsOf(ctx, undefined, '2026-11-27');
  expect(weeks).toHaveLength(16);
  expect(weeks.at(-1)).toEqual({ from: '2026-11-23', to: '2026-11-29', n: 2 });
  expect(weeks[0]).toEqual({ from: '2026-08-10', to: '2026-08-16', n: 1 });
  expect(weeks.map((w) => w.n).reduce((a, b) => a + b)).toBe(4);
  for (const { from, to, n } of weeks)
    expect(await listIds(ctx, { text: `added:${from}..${to}` })).toHaveLength(n);
});

it('tells how far one is with reading, and what each section is written from', async () => {
  const look = { style: 'apa', locale: 'en-US' };
  const project = await insertProject(ctx, { name: 'Thesis', ...look });
  const [a, b] = [await add('A', '2026-11-23T00:00:00.000Z'), await add('B', '2026-11-23T00:00:00.000Z')];
  const above = await makeSection(ctx, project.id, 'Above', null);
  const below = await makeSection(ctx, project.id, 'Below', above.id);
  await makeSection(ctx, project.id, 'Bare', null);
  await changePlaced(ctx, below.id, { act: 'place', ids: [a, b] });
  await keepReading(ctx, { ids: [a, b], state: 'read' });
  await binSources(ctx, [b], true);
  const { reading, sections } = await chartsOf(ctx, project.id, '2026-11-27');
  expect(reading.filter((r) => r.n)).toEqual([{ state: 'read', n: 1 }]);
  expect(sections.map(({ name, depth, sources, passages }) => [name, depth, sources, passages])).toEqual([
    ['Above', 0, 1, 0],
    ['Below', 1, 1, 0],
    ['Bare', 0, 0, 0],
  ]);
});
