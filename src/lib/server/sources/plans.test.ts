import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { getSources, insertSource, sourceByKey } from './repository';
import { doublesOf } from '../capture';
import { spellingsIn } from '../duplicates';
import { groupsInOrder, pairsInGroups } from '../duplicates/groups';
import { proposeAnew } from '../duplicates/spelled';
import { chartsOf, countsOf, deskOf } from '../overview';
import { outlinesOf } from '../projects';
import { openedProof, proofOf } from '../proof';
import {
  allTags,
  facetsOf,
  yearsOf,
  listSources,
  SORTS,
  type Beginning,
  type Sort,
  type SortKey,
} from './index';
import { openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const record = sourceRecord.parse({
  type: 'book',
  title: 'Dredging and the law',
  author: [{ family: 'Brandt' }],
  issued: { 'date-parts': [[2011]] },
  DOI: '10.5555/dredging',
  URL: 'https://press.example/dredging',
});

/** How SQLite does what some work asks (its EXPLAIN QUERY PLAN), line by line. */
async function plansOf(work: () => Promise<unknown>): Promise<string[]> {
  const asked: { sql: string; bindings: readonly Knex.RawBinding[] }[] = [];
  const note = (query: (typeof asked)[number]) => asked.push(query);
  db.on('query', note);
  await work();
  db.removeListener('query', note);
  const plans: string[] = [];
  for (const { sql, bindings } of asked.filter((q) => q.sql.startsWith('select')))
    for (const { detail } of (await db.raw(`EXPLAIN QUERY PLAN ${sql}`, [...bindings])) as {
      detail: string;
    }[])
      plans.push(detail);
  return plans;
}

/** Goes through a whole table, or a whole index, or sorts what it found; the full text is looked up by itself, and ids that were given are no table. */
const GOES_THROUGH =
  /^SCAN (?!CONSTANT ROW|search VIRTUAL TABLE|json_each VIRTUAL TABLE)|USE TEMP B-TREE FOR ORDER BY/;

describe('a large library', () => {
  beforeEach(() =>
    transaction(ctx, async (inner) => {
      for (const citekey of ['a', 'b'])
        await insertSource(inner, record, { citekey, checked: true, why: 'test' });
    }),
  );
  const look = { style: 'apa', locale: 'en-US' };
  const page = (sort: Sort, from: Beginning = { offset: 0 }) =>
    listSources(ctx, {}, look, { from, limit: 60, sort });
  it.each<[string, () => Promise<unknown>]>([
    ['its counts', () => countsOf(ctx)],
    ['its groups', () => groupsInOrder(ctx, { limit: 100 })],
    ['its spellings', () => spellingsIn(ctx, 'person')],
    ['what spellings have come and gone', () => proposeAnew(ctx)],
    ['the pairs of some sources', () => pairsInGroups(ctx, ['a', 'b'])],
    ['the doubles of a record', () => doublesOf(ctx, record)],
    [
      'sources by their ids',
      () =>
        getSources(
          ctx,
          Array.from({ length: 60 }, (_, i) => `id${i}`),
        ),
    ],
    ['a source by its citekey', () => sourceByKey(ctx, 'a')],
    ...(Object.keys(SORTS) as SortKey[]).map((sort): [string, () => Promise<unknown>] => [
      `a page of it in the order “${sort}”`,
      () => page(sort),
    ]),
    [
      'the page after one',
      async () => {
        const { items } = await page('author');
        await page('author', { after: items[0]!.id });
      },
    ],
    ['its years', () => yearsOf(ctx, {})],
    ['the sections of it', () => outlinesOf(ctx)],
    ['its tags', () => allTags(ctx)],
    ['its proof', () => proofOf(ctx, {})],
    ['the proof of a project', () => proofOf(ctx, { projectId: 'p' })],
    ['what a check found', () => openedProof(ctx, 'title-capitals', look, {}, 60)],
    ['the Desk', () => deskOf(ctx)],
    ['what the Desk draws', () => chartsOf(ctx, undefined)],
  ])('is not gone through for %s', async (_what, work) => {
    const plans = await plansOf(work);
    expect(plans.length).toBeGreaterThan(0);
    expect(plans.filter((plan) => GOES_THROUGH.test(plan))).toEqual([]);
  });

  it.each([{}, { text: 'dredging year:2000-2020' }])(
    'is counted for what narrows %j from indexes alone',
    async (filter) => {
      const plans = await plansOf(() => facetsOf(ctx, filter));
      // Values are put in the order of how many have them, which no index knows.
      expect(plans.filter((plan) => GOES_THROUGH.test(plan) && !plan.includes('ORDER BY'))).toEqual([]);
    },
  );

  it('is listed whole, page after page, in every order', async () => {
    const more = ['c', 'd', 'e', 'f', 'g'].map((citekey, i) => ({
      citekey,
      record: sourceRecord.parse({
        type: 'book',
        title: `Title ${i % 3}`,
        ...(i % 2 ? { issued: { 'date-parts': [[1990 + i]] } } : {}),
      }),
    }));
    await transaction(ctx, async (inner) => {
      for (const { citekey, record } of more) await insertSource(inner, record, { citekey, why: 'test' });
    });
    const orders: Sort[] = [
      ...(Object.keys(SORTS) as SortKey[]),
      ['oldest', 'title'],
      ['author', 'newest', 'kind'],
      ['kind', 'newest', 'author', 'title'],
    ];
    for (const sort of orders) {
      const whole = (await listSources(ctx, {}, look, { from: { offset: 0 }, limit: 50, sort })).items;
      const paged: string[] = [];
      for (let from: Beginning = { offset: 0 }; ;) {
        const { items } = await listSources(ctx, {}, look, { from, limit: 2, sort });
        if (items.length === 0) break;
        paged.push(...items.map((i) => i.id));
        from = { after: items.at(-1)!.id };
      }
      expect(paged, String(sort)).toEqual(whole.map((i) => i.id));
      expect(paged).toHaveLength(7);
    }
  });
});
