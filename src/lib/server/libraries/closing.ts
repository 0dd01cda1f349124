import type { Knex } from 'knex';
import { change } from '../access/change';
import { contextOf, type Context } from '../access/context';
import { endConnections } from '../access/events';
import { Refusal } from '../access/refusal';
import { accountsThere, checkPhrase, type Signed } from '../accounts';
import { noted } from '../audit';
import { removeRows } from '../bin';
import { counted } from '../db/counted';
import { inParts } from '../db/ids';
import { KEPT_IN } from '../db/of-library';
import { filesOfLibraryLeave } from '../files/leaving';
import { inTurn } from '../turns';

/** How many rows go at once. */
const AT_ONCE = 300;

/** Tables that have what is under way in a library, was handed out of it, or is made anew from the rest. */
const BESIDE = [
  ...['shared', 'crossing', 'invitation', 'share_link', 'token', 'hold', 'job'],
  ...['spelling_group', 'spelling', 'spelling_stale', 'tally', 'trait', 'membership'],
];

function* forEver(): Generator<undefined> {
  for (;;) yield;
}

/** Removes rows a few at a time, with turns for others between. */
async function removeInTurn(trx: Knex, table: string, whose: string, id: string): Promise<void> {
  const some = `DELETE FROM "${table}" WHERE rowid IN (SELECT rowid FROM "${table}" WHERE ${whose} LIMIT ${AT_ONCE})`;
  for await (const _turn of inTurn(forEver())) {
    await trx.raw(some, [id]);
    const [{ n }] = (await trx.raw('SELECT changes() AS n')) as [{ n: number }];
    if (n < AT_ONCE) return;
  }
}

/** Removes a library with everything kept in it, in a transaction. Its files leave the store at the next start, unless others have them. */
async function removeLibrary(trx: Knex, libraryId: string): Promise<void> {
  await trx.raw('PRAGMA defer_foreign_keys = ON');
  await filesOfLibraryLeave(trx, libraryId);
  await removeInTurn(trx, 'printed', 'source_id IN (SELECT id FROM source WHERE library_id = ?)', libraryId);
  // Facets go with their sources.
  for (const [table, whose] of Object.entries(KEPT_IN).reverse())
    if (table !== 'facet') await removeInTurn(trx, table, whose, libraryId);
  for (const table of BESIDE) await trx(table).where({ library_id: libraryId }).delete();
  // What was handed out stays written down, of a library that is gone.
  await trx('audit').where({ library_id: libraryId }).update({ library_id: null });
  await trx('library').where({ id: libraryId }).delete();
}

/** Refuses while something is still being captured or imported for a library that is to go. */
async function checkNothingUnderWay(trx: Knex, libraryId: string, name: string): Promise<void> {
  const job = await trx('job')
    .where({ library_id: libraryId })
    .whereIn('state', ['waiting', 'running'])
    .first('id');
  if (job)
    throw new Refusal(
      409,
      `Something is still being captured or imported in ${name}. Wait until it is done, or stop it.`,
    );
}

/** Deletes the library for good, with all that everybody keeps in it: by one of its owners, who says what it is called. */
export async function deleteLibrary(ctx: Context, called: string): Promise<void> {
  const { libraryId, personId } = ctx;
  const members = await change(ctx, { right: 'lead', of: ['members', 'projects'] }, async ({ db }) => {
    const { name } = (await db('library').where({ id: libraryId }).first('name')) as { name: string };
    if (called !== name)
      throw new Refusal(422, 'This is not what the library is called.', [
        `name: It is called “${name}”. Type it as it stands.`,
      ]);
    await checkNothingUnderWay(db, libraryId, name);
    const other = await db('membership')
      .where({ person_id: personId })
      .whereNot({ library_id: libraryId })
      .first('role');
    if (!other && !(await accountsThere(db)))
      throw new Refusal(409, 'This is your only library. Make another one first.');
    const members = (await db('membership').where({ library_id: libraryId }).pluck('person_id')) as string[];
    await removeLibrary(db, libraryId);
    await noted(db, { personId, act: 'library deleted', words: name });
    return members;
  });
  members.forEach(endConnections);
}

/** What becomes of what somebody has when their account is closed. */
export interface Closing {
  /** Libraries nobody else is in, which go. */
  goes: { id: string; name: string; sources: number }[];
  /** Libraries that stay, with how much of what they keep for themselves goes. */
  stays: { id: string; name: string; privately: number }[];
  /** Libraries others are in that would have no owner. */
  stuck: { id: string; name: string }[];
  /** They keep the server, which nobody else does. */
  keeps: boolean;
}

const PRIVATE = { passages: 'passage', notes: 'note', tasks: 'task' } as const;
const kindsOfPrivate = Object.entries(PRIVATE) as [keyof typeof PRIVATE, string][];
const ownPrivate = (db: Knex, table: string, personId: string) =>
  db(table).where({ owner_id: personId, visibility: 'private' });

/** What would become of it, before it is. */
export async function closingOf(db: Knex, who: Signed): Promise<Closing> {
  const closing: Closing = { goes: [], stays: [], stuck: [], keeps: false };
  const mine = (await db('membership')
    .join('library', 'library.id', 'membership.library_id')
    .where({ person_id: who.personId })
    .orderBy('library.name')
    .select('library.id', 'library.name', 'membership.role')) as { id: string; name: string; role: string }[];
  for (const { id, name, role } of mine) {
    const others = () => db('membership').where({ library_id: id }).whereNot({ person_id: who.personId });
    if (!(await others().first('role'))) {
      const sources = db('source').where({ library_id: id }).whereNull('binned').whereNull('merged_into');
      closing.goes.push({ id, name, sources: await counted(sources) });
    } else if (role === 'owner' && !(await others().where({ role: 'owner' }).first('role')))
      closing.stuck.push({ id, name });
    else {
      let privately = 0;
      for (const [, table] of kindsOfPrivate)
        privately += await counted(ownPrivate(db, table, who.personId).where({ library_id: id }));
      closing.stays.push({ id, name, privately });
    }
  }
  closing.keeps =
    who.keeper &&
    !(await db('account').where({ keeper: true }).whereNot({ person_id: who.personId }).first('mail'));
  return closing;
}

/**
 * Closes somebody's account for good. Libraries nobody else is in go, and what they keep for themselves anywhere; what they kept for a
 * library stays in it under their name. Refuses while a library others are in would be left without an owner, and to who alone keeps
 * the server.
 */
export async function closeAccount(db: Knex, who: Signed, phrase: string): Promise<void> {
  await checkPhrase(db, who, phrase);
  const { personId } = who;
  await db.transaction(async (trx) => {
    const { goes, stuck, keeps } = await closingOf(trx, who);
    if (keeps)
      throw new Refusal(409, 'You keep this server, and nobody else does. Whoever keeps it cannot go.');
    if (stuck.length)
      throw new Refusal(
        409,
        `Make somebody else an owner first, of: ${stuck.map(({ name }) => name).join(', ')}.`,
      );
    for (const { id, name } of goes) {
      await checkNothingUnderWay(trx, id, name);
      await removeLibrary(trx, id);
    }
    // In libraries they left before, too.
    for (const [kind, table] of kindsOfPrivate) {
      const rows = (await ownPrivate(trx, table, personId).select('id', 'library_id')) as {
        id: string;
        library_id: string;
      }[];
      for (const libraryId of new Set(rows.map((row) => row.library_id))) {
        const ids = rows.filter((row) => row.library_id === libraryId).map(({ id }) => id);
        const ctx: Context = (await contextOf(trx, libraryId, personId)) ?? { db: trx, libraryId, personId, role: 'annotator' }; // prettier-ignore
        for (const part of inParts(ids)) await removeRows(ctx, kind, part);
      }
    }
    for (const table of [
      ...['favourite_style', 'reading_place', 'reply_for', 'shared', 'sent_once'],
      ...['token', 'session', 'passkey', 'membership', 'account'],
    ])
      await trx(table).where({ person_id: personId }).delete();
    await trx('way_back').where({ person_id: personId }).orWhere({ by_id: personId }).delete();
    await trx('reading').where({ owner_id: personId }).delete();
    // How they came in, and from where, is nobody’s any more.
    await trx('audit')
      .where({ person_id: personId })
      .whereNull('library_id')
      .whereNot({ act: 'library deleted' })
      .delete();
    await noted(trx, { personId, act: 'account closed', words: who.name });
  });
  endConnections(personId);
}
