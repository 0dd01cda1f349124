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

/** The library, as it is called. */
export async function libraryName(ctx: Context): Promise<string> {
  const row = (await ctx.db('library').where({ id: ctx.libraryId }).first('name')) as { name: string };
  return row.name;
}

/** A library somebody is in, and as what. */
export interface LibraryOf {
  id: string;
  name: string;
  role: Role;
}

/** The libraries somebody is in, their own first, then by name. */
export const librariesOf = async (ctx: Context): Promise<LibraryOf[]> =>
  (await ctx
    .db('membership')
    .join('library', 'library.id', 'membership.library_id')
    .where('membership.person_id', ctx.personId)
    .orderByRaw('library.owner_id <> ?', [ctx.personId])
    .orderBy('library.name')
    .select('library.id', 'library.name', 'membership.role')) as LibraryOf[];

/** Who is in the library, by name. */
export const peopleOf = async (ctx: Context): Promise<{ id: string; name: string }[]> =>
  (await scoped(ctx, 'membership')
    .join('person', 'person.id', 'membership.person_id')
    .orderBy('person.name')
    .select('person.id', 'person.name')) as { id: string; name: string }[];

/** Who is in the library, by name, as what and since when, with where mail reaches those who have an account. */
export const memberRows = async (ctx: Context) =>
  (await scoped(ctx, 'membership')
    .join('person', 'person.id', 'membership.person_id')
    .leftJoin('account', 'account.person_id', 'person.id')
    .orderBy('person.name')
    .select('person.id', 'person.name', 'membership.role', 'membership.joined', 'account.mail')) as {
    id: string;
    name: string;
    role: Role;
    joined: string;
    mail: string | null;
  }[];

/** Somebody who is in the library: as what, and what they are called. */
export const memberHere = async (
  ctx: Context,
  personId: string,
): Promise<{ role: Role; name: string } | undefined> =>
  (await scoped(ctx, 'membership')
    .join('person', 'person.id', 'membership.person_id')
    .where('membership.person_id', personId)
    .first('membership.role', 'person.name')) as { role: Role; name: string } | undefined;

/** Of some people, those who are in the library, and as what. */
export const rolesOf = async (
  ctx: Context,
  personIds: readonly string[],
): Promise<{ person_id: string; role: Role }[]> =>
  (await scoped(ctx, 'membership')
    .whereIn('person_id', personIds)
    .select('person_id', 'role')) as unknown as {
    person_id: string;
    role: Role;
  }[];

/** Whether the library has an owner besides somebody. */
export const ownedBesides = async (ctx: Context, personId: string): Promise<boolean> =>
  Boolean(
    await scoped(ctx, 'membership')
      .where({ role: 'owner' })
      .whereNot({ person_id: personId })
      .first('person_id'),
  );
