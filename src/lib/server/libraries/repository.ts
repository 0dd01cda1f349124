import type { Knex } from 'knex';
import type { Role } from '../../core/members';
import { scoped, type Context } from '../access/context';
import { hashOf, inDays, isOver } from '../access/secrets';
import { newId, now } from '../db/ids';

export interface Invitation {
  id: string;
  name: string;
  role: Role;
  made: string;
  expires: string;
  by: string;
}

/** Invitations that can still be used. */
export const invitationsOf = async (ctx: Context): Promise<Invitation[]> =>
  (await scoped(ctx, 'invitation')
    .join('person', 'person.id', 'invitation.owner_id')
    .whereNull('used')
    .where('expires', '>', now())
    .orderBy('invitation.made', 'desc')
    .select(
      'invitation.id',
      'invitation.name',
      'role',
      'invitation.made',
      'expires',
      ctx.db.raw('person.name AS "by"'),
    )) as Invitation[];

/** Somebody invited, to which library, as what and by whom. */
export interface Invited {
  id: string;
  library_id: string;
  role: Role;
  name: string;
  library: string;
  by: string;
}

/** What an invitation's secret opens; nothing where it was used, withdrawn or is over. */
export async function invitationBy(db: Knex, secret: string): Promise<Invited | undefined> {
  const row = (await db('invitation')
    .join('library', 'library.id', 'invitation.library_id')
    .join('person', 'person.id', 'invitation.owner_id')
    .where('invitation.hash', hashOf(secret))
    .whereNull('invitation.used')
    .first(
      'invitation.id',
      'invitation.library_id',
      'invitation.role',
      'invitation.name',
      'invitation.expires',
      db.raw('library.name AS library'),
      db.raw('person.name AS "by"'),
    )) as (Invited & { expires: string }) | undefined;
  return row && !isOver(row.expires) ? row : undefined;
}

/** Keeps an invitation by what its secret hashes to. */
export async function insertInvitation(
  ctx: Context,
  secret: string,
  { role, name, days }: { role: Role; name: string; days: number },
): Promise<void> {
  await ctx.db('invitation').insert({
    id: newId(),
    hash: hashOf(secret),
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    role,
    name,
    made: now(),
    expires: inDays(days),
  });
}

/** Deletes an invitation that nobody used; gives whom it was for, or nothing where there is none. */
export async function deleteUnused(ctx: Context, id: string): Promise<string | undefined> {
  const row = (await scoped(ctx, 'invitation').where({ id }).whereNull('used').first('name')) as
    { name: string } | undefined;
  if (row) await scoped(ctx, 'invitation').where({ id }).delete();
  return row?.name;
}

/** Uses an invitation up. */
export async function useInvitation(db: Knex, id: string, personId: string): Promise<void> {
  await db('invitation').where({ id }).update({ used: now(), used_by: personId });
}
