import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../core/source';
import { transaction, type Context } from './context';
import { getSources, insertSource, sourceByKey } from './repositories/sources';
import { doublesOf } from './services/capture';
import { findPairs } from './services/duplicates';
import { countsOf } from './services/overview';
import { openTestLibrary } from './test-library';

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

/** How SQLite looks up sources in what some work asks (its EXPLAIN QUERY PLAN). */
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
      if (/ source /.test(detail)) plans.push(detail);
  return plans;
}

describe('a large library', () => {
  beforeEach(() =>
    transaction(ctx, async (inner) => {
      for (const citekey of ['a', 'b'])
        await insertSource(inner, record, { citekey, checked: true, why: 'test' });
    }),
  );
  const LOOKED_UP =
    /USING (?:COVERING INDEX|INDEX (?:sqlite_autoindex_source_1|source_findings|source_title_creator|source_library_id_(?:doi|isbn|address_key|citekey)_))/;
  it.each<[string, () => Promise<unknown>]>([
    ['its counts', () => countsOf(ctx)],
    ['its pairs', () => findPairs(ctx)],
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
  ])('is not gone through for %s', async (_what, work) => {
    const plans = await plansOf(work);
    expect(plans.length).toBeGreaterThan(0);
    expect(plans.filter((plan) => !LOOKED_UP.test(plan))).toEqual([]);
  });
});
