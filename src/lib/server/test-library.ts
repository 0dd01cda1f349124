import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { defaultContext, type Context } from './context';
import { openDatabase } from './db/open';
import { insertCopy, type Copy } from './repositories/copies';

/** For tests: a page kept of a source, of which only what matters is said. */
export const keepTestCopy = (ctx: Context, sourceId: string, fields: Partial<Copy> = {}): Promise<Copy> =>
  insertCopy(ctx, {
    source_id: sourceId,
    kind: 'page',
    media_type: 'text/html',
    sha256: 'a',
    size: 1,
    reading_sha256: 'b',
    title: '',
    address: 'https://a.example',
    captured: 'x',
    text: '',
    labels: null,
    note: null,
    ...fields,
  });

/** For tests: an empty library in memory, its files in a folder of its own. Whoever opens it destroys the database. */
export async function openTestLibrary(): Promise<{ db: Knex; ctx: Context }> {
  process.env.RETEXA_DATA = mkdtempSync(join(tmpdir(), 'retexa-unit-'));
  const db = await openDatabase(':memory:');
  return { db, ctx: await defaultContext(db) };
}
