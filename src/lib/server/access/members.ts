import type { Knex } from 'knex';
import type { Role } from '../../core/members';
import { now } from '../db/ids';
import { scoped, type Context } from './context';

/** Sets what is said of the library as a whole. */
export async function setLibrary(
  ctx: Context,
  said: { name: string } | { citekey_parts: string },
): Promise<void> {
  await ctx.db('library').where({ id: ctx.libraryId }).update(said);
}

/** Calls somebody otherwise. */
export async function callPerson(db: Knex, personId: string, name: string): Promise<void> {
  await db('person').where({ id: personId }).update({ name });
}

/** Whether somebody is in a library, and as what. */
export async function roleIn(db: Knex, libraryId: string, personId: string): Promise<Role | undefined> {
  const row = (await db('membership').where({ library_id: libraryId, person_id: personId }).first('role')) as
    { role: Role } | undefined;
  return row?.role;
}

/** Lets somebody into a library they are not in. */
export async function joins(db: Knex, libraryId: string, personId: string, role: Role): Promise<void> {
  await db('membership').insert({ library_id: libraryId, person_id: personId, role, joined: now() });
}

/** Makes somebody who is in the library something else in it. */
export async function setRole(ctx: Context, personId: string, role: Role): Promise<void> {
  await scoped(ctx, 'membership').where({ person_id: personId }).update({ role });
}

/** Takes somebody out of the library. */
export async function leaves(ctx: Context, personId: string): Promise<void> {
  await scoped(ctx, 'membership').where({ person_id: personId }).delete();
}
