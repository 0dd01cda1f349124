import type { Knex } from 'knex';
import type { z } from 'zod';
import type { accountWords, invitationWords, libraryWords, memberWords } from '../../core/forms';
import { ROLE_WORDS, ROLES, type Role } from '../../core/members';
import { change, checkRight } from '../access/change';
import { makeLibrary, personName, type Context } from '../access/context';
import { endConnections, tell } from '../access/events';
import {
  joins,
  leaves,
  libraryName,
  memberHere,
  memberRows,
  ownedBesides,
  roleIn,
  setLibrary,
  setRole,
} from '../access/members';
import { notHere, Refusal } from '../access/refusal';
import { newSecret } from '../access/secrets';
import {
  accountsThere,
  dropTokensHere,
  letIn,
  makeAccount,
  personByMail,
  type Asker,
  type From,
} from '../accounts';
import { noted } from '../audit';
import { sendMail } from '../mail';
import { deleteUnused, insertInvitation, invitationBy, useInvitation } from './repository';

export { libraryName, librariesOf, peopleOf, type LibraryOf } from '../access/members';
export { privatePassages } from '../passages/repository';
export { invitationBy, invitationsOf, type Invitation } from './repository';
export { closeAccount, closingOf, deleteLibrary, type Closing } from './closing';

export * from './requests';

/** What is changed here. */
const LEAD = { right: 'lead', of: ['members'] } as const;

/** Whether somebody is in a library. */
export const isMember = async (ctx: Context, libraryId: string): Promise<boolean> =>
  (await roleIn(ctx.db, libraryId, ctx.personId)) !== undefined;

/** Makes another library, whose owner is who asks. */
export async function addLibrary(
  ctx: Context,
  { name }: z.infer<typeof libraryWords>,
): Promise<{ id: string }> {
  const id = await ctx.db.transaction((trx) => makeLibrary(trx, ctx.personId, name));
  return { id };
}

/** Calls the library otherwise. */
export const renameLibrary = (ctx: Context, { name }: z.infer<typeof libraryWords>): Promise<void> =>
  change(ctx, { ...LEAD, of: ['members', 'projects'] }, async (inner) => {
    await setLibrary(inner, { name });
  });

export interface Member {
  id: string;
  name: string;
  role: Role;
  joined: string;
  /** Empty where they have no account. */
  mail: string;
  self: boolean;
}

/** Who is in the library, owners first. Mail addresses are for its owners. */
export async function membersOf(ctx: Context): Promise<Member[]> {
  const rows = await memberRows(ctx);
  return rows
    .map((row) => ({
      ...row,
      mail: ctx.role === 'owner' ? (row.mail ?? '') : '',
      self: row.id === ctx.personId,
    }))
    .sort((a, b) => ROLES.indexOf(a.role) - ROLES.indexOf(b.role));
}

/** Refuses while somebody works here alone: who invites is somebody others can know. */
async function checkAccounts(ctx: Context): Promise<void> {
  if (!(await accountsThere(ctx.db)))
    throw new Refusal(409, 'Make an account for yourself first; then others can be invited.');
}

/** Makes a link that lets one person in, once. Gives its secret, which is not kept. */
export async function invite(
  ctx: Context,
  { role, name, days }: z.input<typeof invitationWords>,
): Promise<{ secret: string }> {
  const secret = newSecret();
  return change(ctx, LEAD, async (inner) => {
    await checkAccounts(inner);
    await insertInvitation(inner, secret, { role, name, days });
    await note(inner, 'invited', `${name}, as ${ROLE_WORDS[role].name.toLowerCase()}`);
    return { secret };
  });
}

/** Sends an invitation to where it is for; gives whether it was taken. */
export async function mailInvitation(
  ctx: Context,
  { mail, name, role, days }: z.infer<typeof invitationWords>,
  address: string,
): Promise<boolean> {
  checkRight(ctx, 'lead');
  const [by, library] = [await personName(ctx), await libraryName(ctx)];
  return sendMail({
    to: mail,
    subject: `${by} invites you to ${library}`,
    text: `${name},\n\n${by} invites you to the library “${library}” in Retexa, as ${ROLE_WORDS[role].name.toLowerCase()}: ${ROLE_WORDS[role].may}.\n\nThis link lets you in, once, within ${days === 1 ? 'a day' : `${days} days`}:\n\n${address}\n`,
  });
}

const note = (ctx: Context, act: Parameters<typeof noted>[1]['act'], words: string) =>
  noted(ctx.db, { libraryId: ctx.libraryId, personId: ctx.personId, act, words });

/** Takes an invitation back that nobody used. */
export const withdrawInvitation = (ctx: Context, id: string): Promise<void> =>
  change(ctx, LEAD, async (inner) => {
    const name = await deleteUnused(inner, id);
    if (name === undefined) throw notHere('invitation');
    await note(inner, 'invitation withdrawn', name);
  });

/**
 * Takes an invitation: for who is signed in, or with a new account. It is used up by it. Gives the library, and a session where a
 * new account was made.
 */
export async function takeInvitation(
  db: Knex,
  secret: string,
  who: Asker | undefined,
  account: z.infer<typeof accountWords> | undefined,
  from: From,
): Promise<{ libraryId: string; session?: string }> {
  const gone = () => new Refusal(404, 'This invitation was used or withdrawn, or is over. Ask for another.');
  if (!(await invitationBy(db, secret))) throw gone();
  if (who?.kind !== 'person' && !account)
    throw new Refusal(422, 'Sign in, or make an account, to take this invitation.');
  const make = who?.kind !== 'person' ? await makeAccount(db, account!) : undefined;
  const result = await db.transaction(async (trx) => {
    const invited = await invitationBy(trx, secret);
    if (!invited) throw gone();
    const personId = who?.kind === 'person' ? who.personId : await make!(trx);
    if (await roleIn(trx, invited.library_id, personId))
      throw new Refusal(409, `You are in ${invited.library} already. The invitation can still be used.`);
    await joins(trx, invited.library_id, personId, invited.role);
    await useInvitation(trx, invited.id, personId);
    await noted(trx, {
      libraryId: invited.library_id,
      personId,
      act: 'joined',
      words: `as ${ROLE_WORDS[invited.role].name.toLowerCase()}, invited by ${invited.by}`,
    });
    const session = make && (await letIn(trx, personId, from));
    return { libraryId: invited.library_id, ...(session ? { session } : {}) };
  });
  tell(result.libraryId, 'members');
  return result;
}

/** Adds somebody who has an account here. */
export const addMember = (ctx: Context, { mail, role }: z.infer<typeof memberWords>): Promise<void> =>
  change(ctx, LEAD, async (inner) => {
    await checkAccounts(inner);
    const row = await personByMail(inner.db, mail);
    if (!row)
      throw new Refusal(404, 'Nobody has an account here with this mail address. Invite them by a link.', [
        'mail: Nobody has an account here with this mail address. Invite them by a link.',
      ]);
    if (await roleIn(inner.db, inner.libraryId, row.person_id))
      throw new Refusal(409, `${row.name} is in the library already.`);
    await joins(inner.db, inner.libraryId, row.person_id, role);
    await note(inner, 'invited', `${row.name}, as ${ROLE_WORDS[role].name.toLowerCase()}, by name`);
  });

async function checkMember(ctx: Context, personId: string): Promise<{ role: Role; name: string }> {
  const member = await memberHere(ctx, personId);
  if (!member) throw new Refusal(404, 'This person is not in the library.');
  return member;
}

/** Refuses to leave a library without an owner. */
async function checkOwnerLeft(ctx: Context, without: string): Promise<void> {
  if (!(await ownedBesides(ctx, without)))
    throw new Refusal(409, 'A library has an owner. Make somebody else an owner first.');
}

/** Makes somebody something else in the library. */
export const changeRole = (ctx: Context, personId: string, role: Role): Promise<void> =>
  change(ctx, LEAD, async (inner) => {
    const member = await checkMember(inner, personId);
    if (member.role === role) return;
    if (member.role === 'owner') await checkOwnerLeft(inner, personId);
    await setRole(inner, personId, role);
    await note(
      inner,
      'role changed',
      `${member.name}: ${ROLE_WORDS[member.role].name.toLowerCase()} → ${ROLE_WORDS[role].name.toLowerCase()}`,
    );
  });

/**
 * Takes somebody out of the library, or oneself. What they kept for the library stays; what they kept private is seen by nobody,
 * and is there again should they come back. Their tokens for it open nothing any more.
 */
export async function removeMember(ctx: Context, personId: string): Promise<void> {
  const self = personId === ctx.personId;
  await change(ctx, { ...LEAD, right: self ? 'own' : 'lead' }, async (inner) => {
    const member = await checkMember(inner, personId);
    if (member.role === 'owner') await checkOwnerLeft(inner, personId);
    await leaves(inner, personId);
    await dropTokensHere(inner, personId);
    await note(inner, self ? 'left' : 'removed', member.name);
  });
  endConnections(personId);
}
