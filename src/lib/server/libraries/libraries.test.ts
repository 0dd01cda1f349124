import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { change } from '../access/change';
import { sourceRecord } from '../../core/source';
import { contextFor, transaction, type Context } from '../access/context';
import { askerOf, makeToken, setUp, type Signed } from '../accounts';
import { auditOf } from '../audit';
import { keepNote, editNote } from '../notes';
import { editPassage, keepPassage } from '../passages';
import { fileSources, insertProject } from '../projects/repository';
import { sectionNamed } from '../projects/sections';
import { insertSource } from '../sources/repository';
import { recount, talliesOf } from '../sources/tallies';
import { keepTestCopy, openTestLibrary } from '../test-library';
import {
  addLibrary,
  addMember,
  changeRole,
  closeAccount,
  closingOf,
  deleteLibrary,
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

/** All rows of all tables that have a word in them. */
async function rowsSaying(word: string): Promise<string[]> {
  const tables = (await db('sqlite_master').where({ type: 'table' }).pluck('name')) as string[];
  const found: string[] = [];
  for (const table of tables.filter((name) => !/^(?:sqlite_|search_[cdi]|knex)/.test(name)))
    if (JSON.stringify(await db(table)).includes(word)) found.push(table);
  return found;
}
const filled = async (as: Context, word: string) => {
  const source = await transaction(as, async (inner) => {
    const record = sourceRecord.parse({
      type: 'book',
      title: `Sluices of ${word}`,
      retexa: { tags: [word] },
    });
    const { id } = await insertSource(inner, record, { why: 'test' });
    const twin = await insertSource(inner, record, { why: 'test' });
    const project = await insertProject(inner, { name: `${word} project`, style: 'apa', locale: 'en-US' });
    await fileSources(inner, project.id, [id, twin.id]);
    await sectionNamed(inner, project.id, `${word} section`);
    await keepTestCopy(inner, id, { sha256: 'c'.repeat(64), text: word });
    return id;
  });
  const passage = { copyId: null, sourceId: source, selectors: null, exact: word, kind: 'quotation', gist: '', ownWords: '', tint: 'claim', locator: null } as const; // prettier-ignore
  await keepPassage(as, { ...passage, visibility: 'library' });
  await keepNote(as, { body: word, projectId: null, sourceId: source });
  return { source, passage };
};

describe('a library that is deleted', () => {
  it('goes with everything in it, and nothing of another', async () => {
    await setAda();
    const { as } = await ben('editor');
    await filled(ctx, 'zzours');
    const { id: other } = await addLibrary(ctx, { name: 'Other' });
    const beside: Context = { ...ctx, libraryId: other };
    await filled(beside, 'zzother');
    await expect(deleteLibrary(as, 'My library')).rejects.toMatchObject({ status: 403 });
    await expect(deleteLibrary(ctx, 'my library')).rejects.toMatchObject({ status: 422 });
    const job = { id: 'j', library_id: ctx.libraryId, person_id: ctx.personId, kind: 'capture', state: 'running', input: '{}', created: 'x', updated: 'x' }; // prettier-ignore
    await db('job').insert(job);
    await expect(deleteLibrary(ctx, 'My library')).rejects.toThrow('still being captured');
    await db('job').update({ state: 'done' });
    const kept = JSON.stringify(await db('source').where({ library_id: other }));
    await deleteLibrary(ctx, 'My library');
    expect(await rowsSaying('zzours')).toEqual([]);
    expect(await rowsSaying(ctx.libraryId)).toEqual([]);
    expect(JSON.stringify(await db('source').where({ library_id: other }))).toBe(kept);
    expect(await db.raw('PRAGMA foreign_key_check')).toEqual([]);
    // What only it had leaves the store; what the other has stays, which is looked at when it leaves.
    expect(await db('leaving_file').pluck('sha256')).toContain('c'.repeat(64));
    const counts = await talliesOf(beside);
    await recount(db);
    expect(await talliesOf(beside)).toEqual(counts);
  });

  it('is not the only one of somebody who works alone', async () => {
    await expect(deleteLibrary(ctx, 'My library')).rejects.toMatchObject({ status: 409 });
    const { id } = await addLibrary(ctx, { name: 'Other' });
    await deleteLibrary(ctx, 'My library');
    expect(await db('library').pluck('id')).toEqual([id]);
  });
});

describe('an account that is closed', () => {
  it('takes along what is theirs alone, and leaves what they kept for others', async () => {
    await setAda();
    const { who, as } = await ben('editor');
    const own = (await contextFor(db, who.personId))!;
    expect(own.libraryId).not.toBe(ctx.libraryId);
    await filled(own, 'zzbens');
    const { passage } = await filled(as, 'zzshared');
    const { id: mine } = await keepPassage(as, { ...passage, exact: 'zzprivate', visibility: 'private' });
    const { kind, tint, gist, locator } = passage;
    await editPassage(as, mine, { base: 1, said: { kind, tint, gist, ownWords: 'zzprivate too', locator, tags: [], wording: null, visibility: 'private' } }); // prettier-ignore
    expect(await closingOf(db, who)).toEqual({
      goes: [{ id: own.libraryId, name: 'My library', sources: 2 }],
      stays: [{ id: ctx.libraryId, name: 'My library', privately: 1 }],
      stuck: [],
      keeps: false,
    });
    await expect(closeAccount(db, who, 'not the phrase')).rejects.toMatchObject({ status: 422 });
    await closeAccount(db, who, BEN.phrase);
    expect(await rowsSaying('zzbens')).toEqual([]);
    expect(await rowsSaying('zzprivate')).toEqual([]);
    expect(await rowsSaying(BEN.mail)).toEqual([]);
    expect(await rowsSaying(FROM.address)).toEqual(['session']);
    expect(await db('passage').pluck('exact')).toEqual(['zzshared']);
    expect((await membersOf(ctx)).map(({ name }) => name)).toEqual(['Ada Pell']);
    expect(await db.raw('PRAGMA foreign_key_check')).toEqual([]);
  });

  it('is not that of who alone keeps the server, nor leaves a library without an owner', async () => {
    const ada = await signed(await setAda());
    await expect(closeAccount(db, ada, ADA.phrase)).rejects.toThrow('You keep this server');
    const { who } = await ben('editor');
    const own = (await contextFor(db, who.personId))!;
    await addMember(own, { mail: ADA.mail, role: 'reader' });
    expect((await closingOf(db, who)).stuck).toEqual([{ id: own.libraryId, name: 'My library' }]);
    await expect(closeAccount(db, who, BEN.phrase)).rejects.toThrow('Make somebody else an owner');
    expect(await db('account').pluck('mail')).toContain(BEN.mail);
  });
});
