import type { Knex } from 'knex';
import type { z } from 'zod';
import type { accountChange, accountWords, phraseChange, signInWords } from '../../core/forms';
import { knownContext, makePerson, type Context } from '../access/context';
import { endConnections } from '../access/events';
import { callPerson } from '../access/members';
import { Refusal } from '../access/refusal';
import { hashOf, inDays, newSecret } from '../access/secrets';
import { noted } from '../audit';
import { config } from '../config';
import { log } from '../log';
import { mailThere, sendMail } from '../mail';
import { TOKEN_SIGN, type Signed } from './asking';
import { checkAttempts, forgetFailures, noteFailure } from './attempts';
import { codeAddress, newCodeSecret, stepOfCode } from './codes';
import { personOfKey, passkeysOf, type PasskeyShown } from './passkeys';
import { isPhrase, phraseHash, phraseProblem } from './phrases';
import {
  accountByMail,
  accountOf,
  accountsThere,
  beginSession,
  deletePasskeys,
  deleteSessions,
  deleteToken,
  deleteTokens,
  deleteWayBack,
  insertAccount,
  insertToken,
  insertWayBack,
  sessionsOf,
  tokensOf,
  updateAccount,
  wayBackBy,
  type From,
  type SessionShown,
  type TokenRow,
  type TokenShown,
} from './repository';

export {
  accountsThere,
  dropTokensHere,
  personByMail,
  type From,
  type SessionShown,
  type TokenShown,
} from './repository';
export {
  beginPasskey,
  confirmPasskey,
  dropPasskey,
  keyOffer,
  passkeysThere,
  type PasskeyShown,
} from './passkeys';
export { askerOf, atMostWith, tokenReaches, type Asker, type Signed } from './asking';

export * from './requests';

const notLetIn = (message: string, field?: string) =>
  new Refusal(401, message, field ? [`${field}: ${message}`] : [], 'signed-out');

/** Takes a pass phrase in, or refuses it with what is wrong, named at its field. */
async function phraseTaken(phrase: string, about: readonly string[], field = 'phrase'): Promise<string> {
  const problem = await phraseProblem(phrase, about);
  if (problem) throw new Refusal(422, problem, [`${field}: ${problem}`]);
  return phraseHash(phrase);
}

/** Refuses a mail address that an account has already. */
async function checkMail(db: Knex, mail: string, personId?: string): Promise<void> {
  const there = await accountByMail(db, mail);
  if (there && there.person_id !== personId)
    throw new Refusal(422, 'There is an account with this mail address.', [
      'mail: There is an account with this mail address. Sign in with it.',
    ]);
}

/** Gives a person an account, in a transaction. */
async function giveAccount(db: Knex, personId: string, mail: string, phrase: string, keeper: boolean) {
  await insertAccount(db, personId, mail, phrase, keeper);
  await noted(db, { personId, act: 'account made', words: mail });
}

let setUpSecret: string | undefined;

/**
 * Where the server listens beyond its own machine and nobody has an account: the secret that lets the first one in, to be printed
 * where only who runs the server reads it. Made once in a run.
 */
export async function secretToSetUp(db: Knex): Promise<string | undefined> {
  if (!config.beyond || config.openToAll || (await accountsThere(db))) return undefined;
  setUpSecret ??= newSecret();
  return setUpSecret;
}

/**
 * Makes the first account, which keeps the server: for who works here alone, with all they have. From beyond the machine it takes
 * the secret that was printed. Gives the session.
 */
export async function setUp(
  db: Knex,
  { name, mail, phrase }: z.infer<typeof accountWords>,
  secret: string,
  from: From,
): Promise<string> {
  const asked = await secretToSetUp(db);
  if (asked) {
    await checkAttempts(db, 'set-up', from.address);
    if (hashOf(secret) !== hashOf(asked)) {
      await noteFailure(db, 'set-up', from.address);
      throw notLetIn('This is not the secret that the server printed when it was started.', 'secret');
    }
  }
  const kept = await phraseTaken(phrase, [name, mail]);
  return db.transaction(async (trx) => {
    if (await accountsThere(trx))
      throw new Refusal(409, 'The first account is there already. Sign in, or let its person invite you.');
    const known = await knownContext(trx);
    const personId = known?.personId ?? (await makePerson(trx, name)).personId;
    await callPerson(trx, personId, name);
    await giveAccount(trx, personId, mail, kept, true);
    return beginSession(trx, personId, from);
  });
}

/** Makes an account for somebody who was let in otherwise, in a transaction; gives who it is. */
export async function makeAccount(db: Knex, { name, mail, phrase }: z.infer<typeof accountWords>) {
  const kept = await phraseTaken(phrase, [name, mail]);
  return async (trx: Knex): Promise<string> => {
    await checkMail(trx, mail);
    const { personId } = await makePerson(trx, name);
    await giveAccount(trx, personId, mail, kept, false);
    return personId;
  };
}

/**
 * Signs somebody in; gives the secret of the session. What is wrong is said the same whether there is such an account or not; who
 * fails often waits.
 */
export async function signIn(
  db: Knex,
  { mail, phrase, code }: z.infer<typeof signInWords>,
  from: From,
): Promise<string> {
  await checkAttempts(db, mail, from.address);
  const account = await accountByMail(db, mail);
  const right = await isPhrase(account?.phrase, phrase);
  if (!right || !account) {
    await noteFailure(db, mail, from.address);
    throw notLetIn('The mail address or the pass phrase is not right.');
  }
  if (account.code_secret) {
    if (!code) throw notLetIn('Type the code that your app shows now.', 'code');
    const step = stepOfCode(account.code_secret, code);
    if (step === undefined || step <= account.code_step) {
      await noteFailure(db, mail, from.address);
      throw notLetIn('This code is not right, or was used already. Wait for the next one.', 'code');
    }
    await updateAccount(db, account.person_id, { code_step: step });
  }
  await forgetFailures(db, mail, from.address);
  return db.transaction(async (trx) => {
    await noted(trx, { personId: account.person_id, act: 'signed in', words: from.address });
    return beginSession(trx, account.person_id, from);
  });
}

/**
 * Signs somebody in by a passkey, which is something they have and, since it asks who they are, something they know or are: no pass phrase
 * and no code is asked for. Gives the secret of the session.
 */
export async function signInByKey(
  db: Knex,
  given: { offer: string; answer: unknown },
  origin: string,
  from: From,
): Promise<string> {
  await checkAttempts(db, 'passkey', from.address);
  const personId = await personOfKey(db, given, origin);
  if (!personId) {
    await noteFailure(db, 'passkey', from.address);
    throw notLetIn('This passkey opens no account here. Sign in with your pass phrase.');
  }
  return db.transaction(async (trx) => {
    await noted(trx, { personId, act: 'signed in', words: `${from.address}, by a passkey` });
    return beginSession(trx, personId, from);
  });
}

/** Begins a session for somebody who was let in otherwise, such as by an invitation. */
export const letIn = (db: Knex, personId: string, from: From): Promise<string> =>
  beginSession(db, personId, from);

/** Ends the session of this browser. */
export async function signOut(db: Knex, who: Signed): Promise<void> {
  await deleteSessions(db, who.personId, { only: who.sessionId });
  endConnections(who.personId);
}

/** Refuses who cannot say the pass phrase of the account they are in. */
export async function checkPhrase(db: Knex, who: Signed, phrase: string): Promise<void> {
  const account = await accountOf(db, who.personId);
  await checkAttempts(db, `held ${who.personId}`, 'here');
  if (await isPhrase(account?.phrase, phrase)) return;
  await noteFailure(db, `held ${who.personId}`, 'here');
  throw new Refusal(422, 'This is not your pass phrase.', ['phrase: This is not your pass phrase.']);
}

/** Changes what somebody is called and where mail reaches them. */
export async function changeAccount(
  db: Knex,
  who: Signed,
  { name, mail, phrase }: z.infer<typeof accountChange>,
): Promise<void> {
  await checkPhrase(db, who, phrase);
  await db.transaction(async (trx) => {
    await checkMail(trx, mail, who.personId);
    await callPerson(trx, who.personId, name);
    await updateAccount(trx, who.personId, { mail });
  });
}

/** Sets another pass phrase, and ends all other sessions. */
export async function changePhrase(
  db: Knex,
  who: Signed,
  { phrase, next }: z.infer<typeof phraseChange>,
): Promise<void> {
  await checkPhrase(db, who, phrase);
  const kept = await phraseTaken(next, [who.name, who.mail], 'next');
  await db.transaction(async (trx) => {
    await updateAccount(trx, who.personId, { phrase: kept });
    await deleteSessions(trx, who.personId, { but: who.sessionId });
    await noted(trx, { personId: who.personId, act: 'pass phrase changed' });
  });
  endConnections(who.personId);
}

/** All that belongs to somebody's account: their sessions, tokens, and whether codes are asked for. */
export async function accountShown(
  db: Knex,
  who: Signed,
): Promise<{ sessions: SessionShown[]; tokens: TokenShown[]; codes: boolean; passkeys: PasskeyShown[] }> {
  const sessions = await sessionsOf(db, who.personId);
  const tokens = await tokensOf(db, who.personId);
  const account = await accountOf(db, who.personId);
  return {
    sessions: sessions.map((one) => ({ ...one, here: one.id === who.sessionId })),
    tokens,
    codes: Boolean(account?.code_secret),
    passkeys: await passkeysOf(db, who.personId),
  };
}

/** Ends a session of one's own, or all but this one. */
export async function endSessions(db: Knex, who: Signed, id: string | 'others'): Promise<void> {
  await deleteSessions(db, who.personId, id === 'others' ? { but: who.sessionId } : { only: id });
  endConnections(who.personId);
}

/** Makes a token for the library that is chosen; its secret is given this once. */
export async function makeToken(
  ctx: Context,
  { name, may, days }: { name: string; may: TokenRow['may']; days: number | null },
): Promise<{ secret: string }> {
  const secret = TOKEN_SIGN + newSecret();
  const { personId, libraryId } = ctx;
  await ctx.db.transaction(async (trx) => {
    await insertToken(trx, secret, {
      person_id: personId,
      library_id: libraryId,
      name,
      may,
      expires: days === null ? null : inDays(days),
    });
    await noted(trx, { libraryId, personId, act: 'token made', words: `${name} (${may})` });
  });
  return { secret };
}

/** Takes a token of one's own back: from then on it opens nothing. */
export async function dropToken(db: Knex, who: Signed, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    const token = await deleteToken(trx, who.personId, id);
    if (!token) return;
    await noted(trx, {
      libraryId: token.library_id,
      personId: who.personId,
      act: 'token taken back',
      words: token.name,
    });
  });
}

/** Begins with time-based codes: gives the secret for the app, which is asked for only once a code of it was typed. */
export async function beginCodes(
  db: Knex,
  who: Signed,
  phrase: string,
): Promise<{ secret: string; address: string }> {
  await checkPhrase(db, who, phrase);
  const secret = newCodeSecret();
  await updateAccount(db, who.personId, { code_waiting: secret });
  return { secret, address: codeAddress(secret, who.mail) };
}

/** Asks for codes from now on, since the app shows the right one. */
export async function confirmCodes(db: Knex, who: Signed, code: string): Promise<void> {
  const account = await accountOf(db, who.personId);
  const step = account?.code_waiting ? stepOfCode(account.code_waiting, code) : undefined;
  if (step === undefined)
    throw new Refusal(422, 'This is not the code the app shows now.', [
      'code: This is not the code the app shows now.',
    ]);
  await db.transaction(async (trx) => {
    await updateAccount(trx, who.personId, {
      code_secret: account!.code_waiting,
      code_waiting: null,
      code_step: step,
    });
    await noted(trx, { personId: who.personId, act: 'codes on' });
  });
}

/** Asks for no codes any more. */
export async function dropCodes(db: Knex, who: Signed, phrase: string): Promise<void> {
  await checkPhrase(db, who, phrase);
  await db.transaction(async (trx) => {
    await updateAccount(trx, who.personId, { code_secret: null, code_waiting: null, code_step: 0 });
    await noted(trx, { personId: who.personId, act: 'codes off' });
  });
}

/** How long a way back in is open, in days. */
const WAY_BACK_DAYS = 2;

/**
 * A way back in for somebody who forgot their pass phrase, to be handed to them: who keeps the server gives it. What was given
 * before is void. Gives the secret.
 */
export async function giveWayBack(db: Knex, who: Signed, personId: string): Promise<string> {
  if (!who.keeper) throw new Refusal(403, 'Only who keeps the server gives others a way back in.');
  if (!(await accountOf(db, personId))) throw new Refusal(404, 'This person has no account.');
  const secret = newSecret();
  await db.transaction(async (trx) => {
    await insertWayBack(trx, secret, { person_id: personId, by_id: who.personId }, WAY_BACK_DAYS);
    await noted(trx, { personId: who.personId, act: 'way back given', words: personId });
  });
  return secret;
}

/**
 * Sends somebody who forgot their pass phrase a way back in by mail, where an account has this address. Nobody learns whether one has:
 * who asks is answered before it is looked for, and asking often is held against them. A code of an app is asked for all the same then.
 */
export async function mailWayBack(
  db: Knex,
  mail: string,
  from: From,
  addressOf: (secret: string) => string,
): Promise<{ sent: Promise<void> }> {
  if (!mailThere()) throw new Refusal(409, 'This server sends no mail. Ask who keeps it for a way back in.');
  await checkAttempts(db, `mail ${mail}`, from.address);
  await noteFailure(db, `mail ${mail}`, from.address);
  const send = async () => {
    const account = await accountByMail(db, mail);
    if (!account) return;
    const secret = newSecret();
    const own = { person_id: account.person_id, by_id: account.person_id };
    await db.transaction(async (trx) => {
      await insertWayBack(trx, secret, own, MAILED_DAYS);
      await noted(trx, { personId: account.person_id, act: 'way back mailed' });
    });
    await sendMail({
      to: account.mail,
      subject: 'A new pass phrase for Retexa',
      text: `Somebody asked for a new pass phrase for your account, from ${from.address}. If it was you, set one here within an hour:\n\n${addressOf(secret)}\n\nIf it was not you, nothing needs to be done: your pass phrase stays as it is.\n`,
    });
  };
  // Behind the answer, so that how long it takes tells nothing.
  return { sent: send().catch((error: unknown) => log.error({ err: error }, 'a way back in was not sent')) };
}

/** How long a way back in that was sent by mail is open, in days: an hour. */
const MAILED_DAYS = 1 / 24;

/** Whose way back in a secret is; nothing where it is none, was used, or is over. */
export const wayBackOf = async (db: Knex, secret: string): Promise<{ name: string } | undefined> => {
  const row = await wayBackBy(db, secret);
  return row && { name: row.name };
};

/**
 * Sets a new pass phrase by a way back in, once; all sessions and tokens of before end. Of one that was handed over, passkeys and codes of an
 * app end too, since they may be lost; one that came by mail proves no more than that mail is read, and leaves them. Gives a new session,
 * or nothing where a code is still asked for.
 */
export async function takeWayBack(
  db: Knex,
  secret: string,
  phrase: string,
  from: From,
): Promise<string | undefined> {
  await checkAttempts(db, 'way back', from.address);
  const row = await wayBackBy(db, secret);
  if (!row) {
    await noteFailure(db, 'way back', from.address);
    throw new Refusal(404, 'This way back in was used, or is over. Ask for another.');
  }
  const kept = await phraseTaken(phrase, [row.name, row.mail]);
  const session = await db.transaction(async (trx) => {
    // Taken by one request only, should it come twice.
    if (!(await deleteWayBack(trx, secret))) throw new Refusal(404, 'This way back in was used.');
    const person_id = row.person_id;
    const mailed = row.by_id === person_id;
    await updateAccount(trx, person_id, {
      phrase: kept,
      ...(mailed ? {} : { code_secret: null, code_waiting: null }),
    });
    if (!mailed) await deletePasskeys(trx, person_id);
    await deleteSessions(trx, person_id);
    await deleteTokens(trx, person_id);
    await noted(trx, { personId: person_id, act: 'way back taken' });
    return mailed && row.code_secret ? undefined : beginSession(trx, person_id, from);
  });
  endConnections(row.person_id);
  return session;
}
