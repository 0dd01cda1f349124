import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import type Database from 'better-sqlite3';
import knex, { type Knex } from 'knex';
import { config } from '../config';
import { migrationSource } from './migrations';
import { keepPrepared } from './statements';

type Done = (error: Error | null, connection: unknown) => void;

/** How much of a database each connection keeps in memory, in KB: reading it again from the file takes most of the time of a large library. */
const CACHE_KB = 24_576;

/**
 * Opens a database file with the pragmas everything relies on, and migrates it; for tests one in memory, `:memory:`, or one
 * that was serialised.
 */
export async function openDatabase(file: string | Buffer): Promise<Knex> {
  if (typeof file === 'string' && file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const db = knex({
    client: 'better-sqlite3',
    // The driver opens what was serialised too.
    connection: { filename: file as string },
    useNullAsDefault: true,
    // What writes waits for a long import to end, however large the file is.
    acquireConnectionTimeout: 15 * 60_000,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: Database.Database, done: Done) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('synchronous = FULL');
        connection.pragma('foreign_keys = ON');
        connection.pragma('busy_timeout = 5000');
        connection.pragma(`cache_size = -${CACHE_KB}`);
        keepPrepared(connection);
        done(null, connection);
      },
    },
  });
  await db.migrate.latest({ migrationSource });
  return db;
}

let opened: Promise<Knex> | undefined;
let reading: Promise<Knex> | undefined;

/** The application's database, opened once. */
export function database(): Promise<Knex> {
  opened ??= openDatabase(config.databaseFile);
  return opened;
}

/** A connection that only reads a database file that is open already. */
export const openReading = (file: string): Knex =>
  knex({
    client: 'better-sqlite3',
    connection: { filename: file, options: { readonly: true } },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: Database.Database, done: Done) => {
        connection.pragma(`cache_size = -${CACHE_KB}`);
        keepPrepared(connection);
        done(null, connection);
      },
    },
  });

/**
 * A second connection to the application's database, which only reads: it answers while the first is inside a long
 * transaction, and sees what was there before it.
 */
export function readingDatabase(): Promise<Knex> {
  reading ??= database().then(() => openReading(config.databaseFile));
  return reading;
}

/** Closes the application's database; the next call to `database` opens it anew. */
export async function closeDatabase(): Promise<void> {
  // The connection that writes goes last: whoever closes last puts the log into the database, which one that reads cannot.
  const all = await Promise.all([reading, opened]);
  opened = reading = undefined;
  for (const db of all) await db?.destroy();
}
