import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type Database from 'better-sqlite3';
import knex, { type Knex } from 'knex';
import { defaultContext, type Context } from './access/context';
import { MIGRATIONS, migrationSource } from './db/migrations';
import { openDatabase } from './db/open';
import { insertCopy, type Copy } from './copies/repository';
import type { Made } from './many';

/** For tests: a page kept of a source, of which only what matters is said. */
export const keepTestCopy = (
  ctx: Context,
  sourceId: string,
  fields: Partial<Parameters<typeof insertCopy>[1]> = {},
): Promise<Copy> =>
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

/**
 * For tests: a library in memory, empty or as one was serialised, its files in a folder of its own. Whoever opens it destroys
 * the database.
 */
export async function openTestLibrary(from?: Buffer): Promise<{ db: Knex; ctx: Context }> {
  process.env.RETEXA_DATA = mkdtempSync(join(tmpdir(), 'retexa-unit-'));
  const db = await openDatabase(from ?? empty ?? ':memory:');
  if (!from) empty ??= await serialised(db);
  return { db, ctx: await defaultContext(db) };
}

/** An empty database as it was migrated once: migrating one for every test takes longer than most tests. */
let empty: Buffer | undefined;

/** For tests: all that is in a database in memory, to be opened again as often as it is wanted. */
export async function serialised(db: Knex): Promise<Buffer> {
  const connection = (await db.client.acquireConnection()) as Database.Database;
  const all = connection.serialize();
  await db.client.releaseConnection(connection);
  return all;
}

/** For tests: the revisions of what was done at once, and not by a job. */
export function atOnce(made: Made): string[] {
  if ('job' in made) throw new Error('a job does it');
  return made.revisions;
}

/** For tests: an empty database in memory as the first `count` migrations leave it. Whoever opens it destroys it. */
export async function openEarlier(count: number): Promise<Knex> {
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: ':memory:' },
    useNullAsDefault: true,
    pool: { min: 1, max: 1 },
  });
  const part = { ...migrationSource, getMigrations: () => Promise.resolve(MIGRATIONS.slice(0, count)) };
  await db.migrate.latest({ migrationSource: part });
  return db;
}

/** For tests: a database as it was before a migration, whose rows need not fit together. */
export async function openBefore(migration: string): Promise<Knex> {
  const db = await openEarlier(MIGRATIONS.findIndex((m) => m.name === migration));
  await db.raw('PRAGMA foreign_keys = OFF');
  return db;
}
