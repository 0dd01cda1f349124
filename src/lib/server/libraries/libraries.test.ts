import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { change } from '../access/change';
import { contextFor, type Context } from '../access/context';
import { askerOf, makeToken, setUp, type Signed } from '../accounts';
import { auditOf } from '../audit';
import { keepNote, editNote } from '../notes';
import { openTestLibrary } from '../test-library';
import {
  addLibrary,
  addMember,
  changeRole,
  invitationBy,
  invitationsOf,
  invite,
  isMember,
  librariesOf,
  membersOf,
  removeMember,
  takeInvitation,
  withdrawInvitation,
} from '.';

const FROM = { address: '192.0.2.7', agent: 'a test' };
const ADA = { name: 'Ada Pell', mail: 'ada@harbour.example', phrase: 'sluice marsh ledger eel' };
const BEN = { name: 'Ben Okoro', mail: 'ben@harbour.example', phrase: 'toll rent gate saltpan' };

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const setAda = () => setUp(db, ADA, '', FROM);
const signed = async (cookie: string) => (await askerOf(db, db, { cookie, authorization: null })) as Signed;
/** Ben, invited in a role; with a context of his in Ada's library. */
async function ben(role: 'editor' | 'annotator' | 'reader'): Promise<{ who: Signed; as: Context }> {
  const { secret } = await invite(ctx, { role, name: 'Ben', days: 7 });
  const taken = await takeInvitation(db, secret, undefined, BEN, FROM);
  const who = await signed(taken.session!);
  return { who, as: (await contextFor(db, who.personId, ctx.libraryId))! };
}

describe('inviting', () => {
  it('takes an account of one’s own first', async () => {
    await expect(invite(ctx, { role: 'reader', name: 'Ben', days: 7 })).rejects.toMatchObject({
      status: 409,
    });
  });

  it('lets one person in, once, with a library of their own beside', async () => {
    await setAda();
    const { secret } = await invite(ctx, { role: 'annotator', name: 'Ben', days: 7 });
    expect(await invitationBy(db, secret)).toMatchObject({
      library: 'My library',
      role: 'annotator',
      by: 'Ada Pell',
    });
    const taken = await takeInvitation(db, secret, undefined, BEN, FROM);
    const who = await signed(taken.session!);
    const as = (await contextFor(db, who.personId, ctx.libraryId))!;
    expect(as).toMatchObject({ libraryId: ctx.libraryId, role: 'annotator' });
    expect((await librariesOf(as)).map(({ role }) => role)).toEqual(['owner', 'annotator']);
    expect((await contextFor(db, who.personId))!.libraryId).not.toBe(ctx.libraryId);
    for (const other of [undefined, who])
      await expect(
        takeInvitation(db, secret, other, { ...BEN, mail: 'c@x.example' }, FROM),
      ).rejects.toMatchObject({ status: 404 });
    expect(await invitationsOf(ctx)).toEqual([]);
  });

  it('opens nothing when it is over or withdrawn, and is not used up by who is there already', async () => {
    await setAda();
    const over = await invite(ctx, { role: 'reader', name: 'Late', days: 1 });
    await db('invitation').update({ expires: '2001-01-01T00:00:00.000Z' });
    expect(await invitationBy(db, over.secret)).toBeUndefined();
    const { secret } = await invite(ctx, { role: 'reader', name: 'Ben', days: 7 });
    const ada = await signed(
      await import('../accounts').then(({ signIn }) => signIn(db, { ...ADA, code: '' }, FROM)),
    );
    await expect(takeInvitation(db, secret, ada, undefined, FROM)).rejects.toMatchObject({ status: 409 });
    const [open] = await invitationsOf(ctx);
    await withdrawInvitation(ctx, open!.id);
    expect(await invitationBy(db, secret)).toBeUndefined();
  });

  it('refuses a weak pass phrase and a mail address that is taken, and leaves the invitation open', async () => {
    await setAda();
    const { secret } = await invite(ctx, { role: 'reader', name: 'Ben', days: 7 });
    const tries = [
      { ...BEN, phrase: 'password1234' },
      { ...BEN, mail: ADA.mail },
    ];
    for (const account of tries)
      await expect(takeInvitation(db, secret, undefined, account, FROM)).rejects.toMatchObject({
        status: 422,
      });
    expect(await db('person').count({ n: '*' })).toEqual([{ n: 1 }]);
    await takeInvitation(db, secret, undefined, BEN, FROM);
  });

  it('adds by name who has an account, once', async () => {
    await setAda();
    const { who } = await ben('reader');
    const group = { ...ctx, libraryId: (await addLibrary(ctx, { name: 'Group' })).id };
    await addMember(group, { mail: BEN.mail, role: 'editor' });
    expect((await contextFor(db, who.personId, group.libraryId))!.role).toBe('editor');
    await expect(addMember(group, { mail: BEN.mail, role: 'editor' })).rejects.toMatchObject({ status: 409 });
    await expect(addMember(group, { mail: 'no@x.example', role: 'editor' })).rejects.toMatchObject({
      status: 404,
    });
  });
});

describe('roles', () => {
  it('an annotator keeps notes of their own, changes nobody else’s, and cannot lead', async () => {
    await setAda();
    const { as } = await ben('annotator');
    const hers = await keepNote(ctx, { body: 'hers', projectId: null, sourceId: null });
    const his = await keepNote(as, { body: 'his', projectId: null, sourceId: null });
    await editNote(as, his.id, 1, { body: 'his, again' });
    await expect(editNote(as, hers.id, 1, { body: 'his' })).rejects.toMatchObject({ status: 403 });
    await editNote(ctx, his.id, 2, { body: 'by an owner' });
    await expect(change(as, { right: 'edit', of: [] }, async () => undefined)).rejects.toMatchObject({
      status: 403,
    });
    await expect(invite(as, { role: 'reader', name: 'X', days: 1 })).rejects.toMatchObject({ status: 403 });
    await expect(auditOf(as)).rejects.toMatchObject({ status: 403 });
    expect((await membersOf(as)).map(({ name, mail }) => [name, mail])).toEqual([
      ['Ada Pell', ''],
      ['Ben Okoro', ''],
    ]);
  });

  it('a reader keeps nothing', async () => {
    await setAda();
    const { as } = await ben('reader');
    await expect(keepNote(as, { body: 'x', projectId: null, sourceId: null })).rejects.toMatchObject({
      status: 403,
    });
  });

  it('a library keeps an owner', async () => {
    await setAda();
    const { who } = await ben('editor');
    await expect(changeRole(ctx, ctx.personId, 'reader')).rejects.toMatchObject({ status: 409 });
    await expect(removeMember(ctx, ctx.personId)).rejects.toMatchObject({ status: 409 });
    await changeRole(ctx, who.personId, 'owner');
    await removeMember(ctx, ctx.personId);
    expect(await isMember(ctx, ctx.libraryId)).toBe(false);
  });
});

describe('going', () => {
  it('leaves what was kept for the library, takes tokens away, and is written down', async () => {
    await setAda();
    const { who, as } = await ben('annotator');
    const his = await keepNote(as, { body: 'his', projectId: null, sourceId: null });
    const { secret } = await makeToken(as, { name: 'x', may: 'read', days: null });
    await expect(removeMember(as, ctx.personId)).rejects.toMatchObject({ status: 403 });
    await removeMember(as, who.personId);
    expect(await isMember(as, ctx.libraryId)).toBe(false);
    expect(await askerOf(db, db, { cookie: undefined, authorization: `Bearer ${secret}` })).toBeUndefined();
    expect(await db('note').where({ id: his.id }).first('binned')).toEqual({ binned: null });
    expect((await auditOf(ctx)).map(({ act, who: by }) => `${by} ${act}`)).toEqual([
      'Ben Okoro left',
      'Ben Okoro token made',
      'Ben Okoro joined',
      'Ada Pell invited',
    ]);
  });
});
