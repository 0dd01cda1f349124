import type { Knex } from 'knex';
import { lesser, type Role } from '../../core/members';
import { newId, now } from '../db/ids';
import { whenKept } from './events';
import { Refusal } from './refusal';

export type { Role };

/** Who asks, and for which library. Every repository takes one and reads nothing outside its library. */
export interface Context {
  db: Knex;
  /** The connection that writes, where `db` is the one that only reads: for what nobody waits for. */
  writes?: Knex;
  libraryId: string;
  personId: string;
  role: Role;
  /** The id of what is sent, where it may come twice: its first change notes it, and what comes again is refused. */
  once?: { id: string; used: boolean };
}

/** A query on a table, bounded to the context's library: the one way repositories begin to read or change rows. */
export function scoped<T extends object>(ctx: Context, table: string): Knex.QueryBuilder<T, T[]> {
  return ctx.db(table).where(`${table}.library_id`, ctx.libraryId) as Knex.QueryBuilder<T, T[]>;
}

/** What can be kept from others. */
export type Private = 'passage' | 'task' | 'note';

/**
 * A query on what can be kept from others, bounded to what the person may see: what another keeps private is not there, in no list,
 * count, search or export, unless it is shown to them by name.
 */
export function visible<T extends object>(ctx: Context, table: Private): Knex.QueryBuilder<T, T[]> {
  return scoped<T>(ctx, table).where((q) => {
    void q.where(`${table}.visibility`, 'library').orWhere(`${table}.owner_id`, ctx.personId);
    if (table !== 'task') void q.orWhereRaw(`instr(${table}.shown_to, ?) > 0`, [ctx.personId]);
  }) as Knex.QueryBuilder<T, T[]>;
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
export async function transaction<T>(ctx: Context, work: (inner: Context) => Promise<T>): Promise<T> {
  if (ctx.db.isTransaction) return work(ctx);
  const { once } = ctx;
  const result = await whenKept(() =>
    ctx.db.transaction(async (db) => {
      if (once && !once.used) await noteSent(db, ctx.personId, once.id);
      return work({ ...ctx, db });
    }),
  );
  if (once) once.used = true;
  return result;
}

/** How long it is remembered what was sent, in milliseconds: longer than a browser is thought to keep it. */
const REMEMBERED = 120 * 86_400_000;

/** Notes that something was sent, in the transaction that keeps it; refuses what came before. */
async function noteSent(db: Knex, personId: string, id: string): Promise<void> {
  const row = { person_id: personId, id };
  if (await db('sent_once').where(row).first('at'))
    throw new Refusal(409, 'This was sent before, and is kept.', [], 'sent-before');
  await db('sent_once')
    .where('at', '<', new Date(Date.now() - REMEMBERED).toISOString())
    .delete();
  await db('sent_once').insert({ ...row, at: now() });
}

/** The context of work that goes on for a person without a request, or nothing when they are no member any more. */
export async function contextOf(db: Knex, libraryId: string, personId: string): Promise<Context | undefined> {
  const member = (await db('membership').where({ library_id: libraryId, person_id: personId }).first()) as
    { role: Role } | undefined;
  return member && { db, libraryId, personId, role: member.role };
}

/**
 * The context of somebody who asks: in the library they chose where they are a member of it, else in the one they own, else in any
 * they are in. `atMost` narrows what they may. Nothing where they are in none.
 */
export async function contextFor(
  db: Knex,
  personId: string,
  chosen?: string,
  atMost: Role = 'owner',
): Promise<Context | undefined> {
  const members = (await db('membership')
    .join('library', 'library.id', 'membership.library_id')
    .where('membership.person_id', personId)
    .orderBy('library.created')
    .select('membership.library_id', 'membership.role', 'library.owner_id')) as {
    library_id: string;
    role: Role;
    owner_id: string;
  }[];
  const member =
    members.find((m) => m.library_id === chosen) ??
    members.find((m) => m.owner_id === personId && m.role === 'owner') ??
    members[0];
  return member && { db, libraryId: member.library_id, personId, role: lesser(member.role, atMost) };
}

/** Who worked here alone, in their own library, or nothing before the first request. */
export async function knownContext(db: Knex, chosen?: string): Promise<Context | undefined> {
  const first = (await db('membership')
    .join('library', 'library.id', 'membership.library_id')
    .where('membership.role', 'owner')
    .orderBy('library.created')
    .orderBy('library.id')
    .first('membership.person_id')) as { person_id: string } | undefined;
  return first && contextFor(db, first.person_id, chosen);
}

/** A new library of somebody, who owns it. */
export async function makeLibrary(db: Knex, personId: string, name: string): Promise<string> {
  const [libraryId, created] = [newId(), now()];
  await db('library').insert({ id: libraryId, name, owner_id: personId, created });
  await db('membership').insert({
    library_id: libraryId,
    person_id: personId,
    role: 'owner',
    joined: created,
  });
  return libraryId;
}

/** A new person, with a library of their own. */
export async function makePerson(db: Knex, name: string): Promise<{ personId: string; libraryId: string }> {
  const personId = newId();
  await db('person').insert({ id: personId, name, created: now() });
  return { personId, libraryId: await makeLibrary(db, personId, 'My library') };
}

/** The context of who works alone: one person with one library, made when first asked for. */
export async function defaultContext(db: Knex): Promise<Context> {
  const known = await knownContext(db);
  if (known) return known;
  return db.transaction(async (trx) => {
    const made = await makePerson(trx, 'You');
    return { db, ...made, role: 'owner' as const };
  });
}
