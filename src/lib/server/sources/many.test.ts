/** Work on one source does not grow with how many are called the same; counted in what the database is asked. */
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { freeCitekey } from './citekeys';
import { insertSource, sourcesByKeys } from './repository';
import { alike } from '../capture';
import { openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const piece = (fields: object) =>
  sourceRecord.parse({ type: 'article-journal', title: 'Editorial', ...fields });
const year = (n: number) => ({ issued: { 'date-parts': [[n]] } });

/** How many rows of sources and how many queries some work asks for. */
async function asked(work: () => Promise<unknown>): Promise<{ queries: number; rows: number }> {
  let [queries, rows] = [0, 0];
  const note = (response: unknown) => {
    queries++;
    rows += Array.isArray(response) ? response.length : 0;
  };
  db.on('query-response', note);
  await work();
  db.removeListener('query-response', note);
  return { queries, rows };
}

describe('hundreds of pieces of one title', () => {
  const HOW_MANY = 400;
  beforeEach(() =>
    transaction(ctx, async (inner) => {
      for (let i = 0; i < HOW_MANY; i++) {
        const who = i % 2 ? [{ family: 'Pell' }] : [{ family: `Ng${i}` }];
        await insertSource(inner, piece({ author: who, ...year(1900 + (i % 100)) }), { why: 'test' });
      }
      for (let i = 0; i < 100; i++) await insertSource(inner, piece({}), { why: 'test' });
    }),
  );

  it('are not all looked at for one more, and the ones that may be it are', async () => {
    const same = piece({ author: [{ family: 'Ng44' }], ...year(1944) });
    const { rows } = await asked(async () => {
      const found = await alike(ctx, same);
      expect(found.map((d) => d.source.record.author?.[0]?.family)).toEqual(['Ng44']);
    });
    expect(rows).toBeLessThan(30);
    expect((await asked(() => alike(ctx, piece({})))).rows).toBeLessThan(10);
  });

  it('get a free citekey in a few questions', async () => {
    const record = piece({ author: [{ family: 'Pell' }], ...year(1901) });
    const { queries } = await asked(async () => {
      const key = await freeCitekey(ctx, record);
      expect(await sourcesByKeys(ctx, [key])).toEqual(new Map());
    });
    expect(queries).toBeLessThan(30);
  });
});

describe('citekeys of a text', () => {
  it('are looked up many at once', async () => {
    const { citekey, id } = await insertSource(ctx, piece(year(2001)), { why: 'test' });
    const keys = [...Array.from({ length: 2_000 }, (_, i) => `nobody${i}`), citekey];
    const { queries } = await asked(async () =>
      expect(await sourcesByKeys(ctx, keys)).toEqual(new Map([[citekey, id]])),
    );
    expect(queries).toBeLessThan(40);
  });
});
