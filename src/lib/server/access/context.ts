import type { Knex } from 'knex';
import { newId, now } from '../db/ids';
import { whenKept } from './events';

/** What a person may do in a library. */
export type Role = 'owner' | 'editor' | 'reader';

/** Who asks, and for which library. Every repository takes one and reads nothing outside its library. */
export interface Context {
  db: Knex;
  /** The connection that writes, where `db` is the one that only reads: for what nobody waits for. */
  writes?: Knex;
  libraryId: string;
  personId: string;
  role: Role;
}

/** A query on a table, bounded to the context's library: the one way repositories begin to read or change rows. */
export function scoped<T extends object>(ctx: Context, table: string): Knex.QueryBuilder<T, T[]> {
  return ctx.db(table).where(`${table}.library_id`, ctx.libraryId) as Knex.QueryBuilder<T, T[]>;
}

/**
 * A query on passages or tasks, bounded to those the person may see: what another keeps private is not there, in no list,
 * count, search or export.
 */
export function visible<T extends object>(
  ctx: Context,
  table: 'passage' | 'task',
): Knex.QueryBuilder<T, T[]> {
  return scoped<T>(ctx, table).where(
    (q) => void q.where(`${table}.visibility`, 'library').orWhere(`${table}.owner_id`, ctx.personId),
  ) as Knex.QueryBuilder<T, T[]>;
}

/** What the person who asks is called. */
export async function personName(ctx: Context): Promise<string> {
  const row = (await ctx.db('person').where({ id: ctx.personId }).first('name')) as { name: string };
  return row.name;
}

/**
 * Runs `work` in one transaction; everything in it is kept or nothing is. Pages are told of it once it is kept. Changes go
 * through `change`; this is for what nobody asked for, such as what a job puts down of itself.
 */
export function transaction<T>(ctx: Context, work: (inner: Context) => Promise<T>): Promise<T> {
  if (ctx.db.isTransaction) return work(ctx);
  return whenKept(() => ctx.db.transaction((db) => work({ ...ctx, db })));
}

/** The context of work that goes on for a person without a request, or nothing when they are no member any more. */
export async function contextOf(db: Knex, libraryId: string, personId: string): Promise<Context | undefined> {
  const member = (await db('membership').where({ library_id: libraryId, person_id: personId }).first()) as
    { role: Role } | undefined;
  return member && { db, libraryId, personId, role: member.role };
}

/** The person and library there are, or nothing before the first request. */
export async function knownContext(db: Knex): Promise<Context | undefined> {
  const member = (await db('membership').orderBy('library_id').first()) as
    { library_id: string; person_id: string; role: Role } | undefined;
  return member && { db, libraryId: member.library_id, personId: member.person_id, role: member.role };
}

/**
 * The context of a request. There are no accounts yet: one default person with one library, made when first asked
 * for; this function is the place that will tell people apart.
 */
export async function defaultContext(db: Knex): Promise<Context> {
  const known = await knownContext(db);
  if (known) return known;
  const [personId, libraryId, created] = [newId(), newId(), now()];
  await db.transaction(async (trx) => {
    await trx('person').insert({ id: personId, name: 'You', created });
    await trx('library').insert({ id: libraryId, name: 'My library', owner_id: personId, created });
    await trx('membership').insert({ library_id: libraryId, person_id: personId, role: 'owner' });
  });
  return { db, libraryId, personId, role: 'owner' };
}
