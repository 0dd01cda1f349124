import type { Knex } from 'knex';
import type { Context } from '../access/context';
import { NAMED } from './named';
import { removeFile } from './store';

/** Notes files that nothing may name any more; the next start removes those that nothing does. */
export async function filesLeave(ctx: Context, sha256s: (string | null | undefined)[]): Promise<void> {
  for (const sha256 of new Set(sha256s))
    if (sha256) await ctx.db('leaving_file').insert({ sha256 }).onConflict('sha256').ignore();
}

/** Notes all files that a library names, before its rows go. */
export async function filesOfLibraryLeave(db: Knex, libraryId: string): Promise<void> {
  for (const [table, column] of NAMED)
    await db.raw(
      `INSERT OR IGNORE INTO leaving_file (sha256) SELECT DISTINCT ${column} FROM ${table} WHERE library_id = ? AND coalesce(${column}, '') <> ''`,
      [libraryId],
    );
}

/** Where a file may be named within a text. */
const MENTIONED: [table: string, column: string][] = [
  ['job', 'input'],
  ['job', 'result'],
  ['hold', 'content'],
];

/**
 * Removes the files of what was deleted for good from the store, unless something else has them. Run at start, when
 * nothing is being kept. Gives how many files went.
 */
export async function sweepLeaving(db: Knex): Promise<number> {
  let gone = 0;
  for (const { sha256 } of (await db('leaving_file')) as { sha256: string }[]) {
    let used = false;
    for (const [table, column] of NAMED)
      used ||= Boolean(await db(table).where(column, sha256).first(column));
    for (const [table, column] of MENTIONED)
      used ||= Boolean(await db(table).where(column, 'like', `%${sha256}%`).first(column));
    if (!used && (await removeFile(sha256))) gone++;
    await db('leaving_file').where({ sha256 }).delete();
  }
  return gone;
}
