import type { Knex } from 'knex';
import { Secret, TOTP } from 'otpauth';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { contextFor, type Context } from '../access/context';
import { startMailSink } from '../../../../stand-ins/mail';
import { openTestLibrary } from '../test-library';
import {
  accountShown,
  askerOf,
  beginCodes,
  beginPasskey,
  changePhrase,
  confirmCodes,
  confirmPasskey,
  dropToken,
  endSessions,
  giveWayBack,
  keyOffer,
  mailWayBack,
  makeToken,
  passkeysThere,
  secretToSetUp,
  setUp,
  signIn,
  signInByKey,
  signOut,
  takeWayBack,
  tokenReaches,
  type Signed,
} from '.';
import { waitAfter } from './attempts';
import { stepOfCode } from './codes';
import { isPhrase, phraseHash, phraseProblem } from './phrases';

const FROM = { address: '192.0.2.7', agent: 'a test' };
const ADA = { name: 'Ada Pell', mail: 'ada@harbour.example', phrase: 'sluice marsh ledger eel' };

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(async () => {
  delete process.env.RETEXA_HOST;
  delete process.env.RETEXA_WITHOUT_ACCOUNTS;
  await db.destroy();
});

const asker = (cookie?: string, authorization: string | null = null) =>
  askerOf(db, db, { cookie, authorization });
async function signedIn(): Promise<{ secret: string; who: Signed }> {
  const secret = await setUp(db, ADA, '', FROM);
  return { secret, who: (await asker(secret)) as Signed };
}

describe('who asks', () => {
  it('is somebody alone while there is no account, and who signed in from then on', async () => {
    expect(await asker()).toEqual({ kind: 'alone' });
    const { secret, who } = await signedIn();
    expect(who).toMatchObject({ kind: 'person', personId: ctx.personId, name: 'Ada Pell', keeper: true });
    expect(await asker()).toBeUndefined();
    expect(await asker(`${secret}x`)).toBeUndefined();
    // What they had is theirs.
    expect(await contextFor(db, who.personId)).toMatchObject({ libraryId: ctx.libraryId, role: 'owner' });
  });

  it('is nobody beyond the machine while there is no account, unless the server is told so plainly', async () => {
    process.env.RETEXA_HOST = '0.0.0.0';
    expect(await asker()).toBeUndefined();
    process.env.RETEXA_WITHOUT_ACCOUNTS = 'yes';
    expect(await asker()).toBeUndefined();
    process.env.RETEXA_WITHOUT_ACCOUNTS = 'everybody-may-do-everything';
    expect(await asker()).toEqual({ kind: 'alone' });
  });

  it('beyond the machine, the first account takes the secret that was printed, and there is one first only', async () => {
    process.env.RETEXA_HOST = '192.0.2.1';
    const secret = await secretToSetUp(db);
    expect(secret).toMatch(/^[\w-]{43}$/);
    await expect(setUp(db, ADA, 'guessed', FROM)).rejects.toMatchObject({ status: 401 });
    await setUp(db, ADA, secret!, FROM);
    expect(await secretToSetUp(db)).toBeUndefined();
    await expect(setUp(db, { ...ADA, mail: 'b@harbour.example' }, secret!, FROM)).rejects.toMatchObject({
      status: 409,
    });
  });

  it('keeps no secret as it is', async () => {
    const { secret } = await signedIn();
    const token = await makeToken(ctx, { name: 'x', may: 'read', days: null });
    const tables = ['account', 'session', 'token', 'audit'];
    const all = JSON.stringify(await Promise.all(tables.map((table) => db(table))));
    for (const word of [secret, token.secret, ADA.phrase]) expect(all).not.toContain(word);
  });
});

describe('signing in', () => {
  it('says the same whether there is no such account or the pass phrase is wrong', async () => {
    await signedIn();
    const said = async (mail: string) =>
      signIn(db, { mail, phrase: 'wrong wrong wrong', code: '' }, FROM).catch((e: Error) => e.message);
    expect(await said(ADA.mail)).toBe(await said('nobody@harbour.example'));
  });

  it('makes who fails wait, longer each time; others are let in meanwhile', async () => {
    await signedIn();
    const wrong = () => signIn(db, { mail: ADA.mail, phrase: 'wrong', code: '' }, FROM);
    for (let i = 0; i < 5; i++) await expect(wrong()).rejects.toMatchObject({ status: 401 });
    await expect(wrong()).rejects.toMatchObject({ status: 429 });
    const right = { mail: ADA.mail, phrase: ADA.phrase, code: '' };
    await expect(signIn(db, right, FROM)).rejects.toMatchObject({ status: 429 });
    // From another place the owner of the account gets in.
    await signIn(db, right, { ...FROM, address: '192.0.2.8' });
    expect([4, 5, 6, 30].map((failed) => waitAfter(failed, 5))).toEqual([0, 30_000, 60_000, 900_000]);
    // An hour later nothing is held against anybody.
    await db('attempt').update({ last: new Date(Date.now() - 3_700_000).toISOString() });
    await signIn(db, right, FROM);
  });

  it('gives a new secret each time, and what ended opens nothing', async () => {
    const { secret, who } = await signedIn();
    const right = { mail: ADA.mail, phrase: ADA.phrase, code: '' };
    const other = await signIn(db, right, FROM);
    expect(other).not.toBe(secret);
    await endSessions(db, who, 'others');
    expect([await asker(other), await asker(secret)]).toMatchObject([undefined, { kind: 'person' }]);
    await signOut(db, who);
    expect(await asker(secret)).toBeUndefined();
    const late = await signIn(db, right, FROM);
    await db('session').update({ expires: '2001-01-01T00:00:00.000Z' });
    expect(await asker(late)).toBeUndefined();
  });

  it('with codes: asks for one, takes it once, and none of before', async () => {
    const { who } = await signedIn();
    const { secret, address } = await beginCodes(db, who, ADA.phrase);
    expect(address).toContain(secret);
    const code = (at: number) =>
      new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({ timestamp: at });
    await expect(confirmCodes(db, who, '000000x')).rejects.toMatchObject({ status: 422 });
    await confirmCodes(db, who, code(Date.now()));
    const right = { mail: ADA.mail, phrase: ADA.phrase };
    await expect(signIn(db, { ...right, code: '' }, FROM)).rejects.toMatchObject({
      details: ['code: Type the code that your app shows now.'],
    });
    // The step it was confirmed with is used up.
    await expect(signIn(db, { ...right, code: code(Date.now()) }, FROM)).rejects.toMatchObject({
      status: 401,
    });
    await signIn(db, { ...right, code: code(Date.now() + 30_000) }, FROM);
    // A wrong pass phrase is told first: the right code tells nobody that there is an account.
    await expect(
      signIn(db, { mail: ADA.mail, phrase: 'wrong', code: code(Date.now() + 30_000) }, FROM),
    ).rejects.toMatchObject({ message: 'The mail address or the pass phrase is not right.' });
  });

  it('with a way back: sets a pass phrase once, and ends all that was', async () => {
    const { secret, who } = await signedIn();
    const back = await giveWayBack(db, who, who.personId);
    const again = await giveWayBack(db, who, who.personId);
    await expect(takeWayBack(db, back, 'another four words here', FROM)).rejects.toMatchObject({
      status: 404,
    });
    const token = await makeToken(ctx, { name: 'x', may: 'all', days: null });
    const anew = await takeWayBack(db, again, 'another four words here', FROM);
    expect([await asker(secret), await asker(anew)]).toMatchObject([undefined, { kind: 'person' }]);
    expect(await asker(undefined, `Bearer ${token.secret}`)).toBeUndefined();
    await expect(takeWayBack(db, again, 'third time four words', FROM)).rejects.toMatchObject({
      status: 404,
    });
    await expect(giveWayBack(db, { ...who, keeper: false }, who.personId)).rejects.toMatchObject({
      status: 403,
    });
  });

  it('by mail: the same is answered whether there is such an account or not, and a code stays asked for', async () => {
    const { secret, who } = await signedIn();
    await expect(mailWayBack(db, ADA.mail, FROM, (s) => s)).rejects.toMatchObject({ status: 409 });
    const sink = await startMailSink();
    process.env.RETEXA_SMTP = `smtp://127.0.0.1:${sink.port}`;
    try {
      const { secret: app } = await beginCodes(db, who, ADA.phrase);
      await confirmCodes(db, who, TOTP.generate({ secret: Secret.fromBase32(app) }));
      await (
        await mailWayBack(db, 'nobody@harbour.example', FROM, (s) => s)
      ).sent;
      expect(sink.mails).toEqual([]);
      await (
        await mailWayBack(db, ADA.mail, FROM, (s) => `http://retexa.example/way-back/${s}`)
      ).sent;
      const [mail] = sink.mails;
      expect(mail!.to).toEqual([ADA.mail]);
      const back = /way-back\/([\w-]{43})$/m.exec(mail!.text)![1]!;
      // Only mail was read: the code of the app is asked for as before.
      expect(await takeWayBack(db, back, 'gates of the tidal pond', FROM)).toBeUndefined();
      expect(await asker(secret)).toBeUndefined();
      const anew = { mail: ADA.mail, phrase: 'gates of the tidal pond' };
      await expect(signIn(db, { ...anew, code: '' }, FROM)).rejects.toMatchObject({ status: 401 });
      const code = TOTP.generate({ secret: Secret.fromBase32(app), timestamp: Date.now() + 30_000 });
      await signIn(db, { ...anew, code }, FROM);
      // Asking often waits.
      const often = async () => {
        for (let i = 0; i < 6; i++) await mailWayBack(db, ADA.mail, FROM, (s) => s).then(({ sent }) => sent);
      };
      await expect(often()).rejects.toMatchObject({ status: 429 });
    } finally {
      delete process.env.RETEXA_SMTP;
      await sink.stop();
    }
  });

  it('a passkey belongs to a name, is answered once, and nobody’s opens nothing', async () => {
    const { who } = await signedIn();
    const at = 'https://retexa.example';
    await expect(beginPasskey(db, who, 'http://127.0.0.1:5180')).rejects.toMatchObject({ status: 409 });
    const { offer, options } = await beginPasskey(db, who, at);
    expect(options).toMatchObject({
      rp: { id: 'retexa.example' },
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
    });
    const answer = { id: 'x', rawId: 'x', type: 'public-key', response: {} };
    await expect(confirmPasskey(db, who, { offer, answer, name: 'x' }, at)).rejects.toMatchObject({
      status: 422,
    });
    await expect(confirmPasskey(db, who, { offer, answer, name: 'x' }, at)).rejects.toMatchObject({
      status: 409,
    });
    const asked = await keyOffer(at);
    await expect(signInByKey(db, { offer: asked.offer, answer }, at, FROM)).rejects.toMatchObject({
      status: 401,
    });
    // What one person began another does not end.
    const theirs = await beginPasskey(db, who, at);
    await expect(
      confirmPasskey(db, { ...who, personId: 'other' }, { ...theirs, answer, name: 'x' }, at),
    ).rejects.toMatchObject({ status: 409 });
    expect(await passkeysThere(db)).toBe(false);
  });

  it('another pass phrase takes the one there is, and ends other sessions', async () => {
    const { who } = await signedIn();
    const other = await signIn(db, { mail: ADA.mail, phrase: ADA.phrase, code: '' }, FROM);
    const next = 'gates of the tidal pond';
    await expect(changePhrase(db, who, { phrase: 'wrong', next })).rejects.toMatchObject({ status: 422 });
    await expect(changePhrase(db, who, { phrase: ADA.phrase, next: 'short' })).rejects.toMatchObject({
      details: [expect.stringMatching(/^next: /)],
    });
    await changePhrase(db, who, { phrase: ADA.phrase, next });
    expect(await asker(other)).toBeUndefined();
    await signIn(db, { mail: ADA.mail, phrase: next, code: '' }, FROM);
  });
});

describe('tokens', () => {
  it('open one library, no more than they say, until they are taken back', async () => {
    const { who } = await signedIn();
    const { secret } = await makeToken(ctx, { name: 'companion', may: 'capture', days: 1 });
    const token = await asker(undefined, `Bearer ${secret}`);
    expect(token).toEqual({
      kind: 'token',
      personId: who.personId,
      libraryId: ctx.libraryId,
      may: 'capture',
    });
    expect(
      ['/api/captures', '/api/captures/page', '/api/known', '/api/jobs/1'].map((path) =>
        tokenReaches({ may: 'capture' }, path),
      ),
    ).toEqual([true, true, true, true]);
    expect(
      ['/sources', '/api/capturesx', '/api/export', '/api/members'].map((path) =>
        tokenReaches({ may: 'capture' }, path),
      ),
    ).toEqual([false, false, false, false]);
    const { tokens } = await accountShown(db, who);
    await dropToken(db, who, tokens[0]!.id);
    expect(await asker(undefined, `Bearer ${secret}`)).toBeUndefined();
    // A token that is none is no way around the cookie, either.
    expect(await asker(undefined, 'Bearer rtx_nothing_at_all_here')).toBeUndefined();
    expect(await asker(undefined, 'Basic YTpi')).toBeUndefined();
  });

  it('end with their time', async () => {
    await signedIn();
    const { secret } = await makeToken(ctx, { name: 'x', may: 'all', days: 1 });
    await db('token').update({ expires: '2001-01-01T00:00:00.000Z' });
    expect(await asker(undefined, `Bearer ${secret}`)).toBeUndefined();
  });
});

describe('pass phrases', () => {
  it('are long, and not what somebody would try first', async () => {
    const about = ['Ada Pell', 'ada@harbour.example'];
    for (const bad of [
      'short',
      'password1234',
      'aaaaaaaaaaaaaaaa',
      'qwertyuiop123',
      'ada@harbour.example',
      'x'.repeat(201),
    ])
      expect(await phraseProblem(bad, about), bad).toBeDefined();
    expect(await phraseProblem(ADA.phrase, about)).toBeUndefined();
  });

  it('are kept as Argon2id with the cost OWASP names, and compared in one form of Unicode', async () => {
    const kept = await phraseHash('caf\u00e9 marsh sluice');
    // Password Storage Cheat Sheet: m=19456 (19 MiB), t=2, p=1.
    expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(await isPhrase(kept, 'cafe\u0301 marsh sluice')).toBe(true);
    expect(await isPhrase(kept, 'cafe marsh sluice')).toBe(false);
    expect(await isPhrase(undefined, 'nobody has this pass phrase')).toBe(false);
  });
});

describe('codes', () => {
  /** RFC 6238, appendix B, SHA-1: the last six of the eight digits there; the secret is the ASCII text it names. */
  const secret = new Secret({
    buffer: new TextEncoder().encode('12345678901234567890').buffer as ArrayBuffer,
  }).base32;
  it.each([
    [59, '287082'],
    [1111111109, '081804'],
    [1111111111, '050471'],
    [1234567890, '005924'],
    [2000000000, '279037'],
    [20000000000, '353130'],
  ])('at %i seconds, the code of RFC 6238 is right', (seconds, code) => {
    const step = Math.floor(seconds / 30);
    expect(stepOfCode(secret, code, seconds * 1_000)).toBe(step);
    expect(stepOfCode(secret, code, (seconds + 30) * 1_000)).toBe(step);
    expect(stepOfCode(secret, code, (seconds + 90) * 1_000)).toBeUndefined();
  });
});
