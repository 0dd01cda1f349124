import type { Knex } from 'knex';
import { scoped, type Context } from '../access/context';
import { hashOf, inDays, isOver, newSecret } from '../access/secrets';
import { newId, now } from '../db/ids';

export interface AccountRow {
  person_id: string;
  mail: string;
  phrase: string;
  keeper: number;
  code_secret: string | null;
  code_waiting: string | null;
  code_step: number;
  made: string;
}

/** How long a session lasts that nobody uses, in days. */
export const SESSION_DAYS = 30;

export const accountsThere = async (db: Knex): Promise<boolean> =>
  Boolean(await db('account').first('person_id'));

export const accountByMail = async (db: Knex, mail: string): Promise<AccountRow | undefined> =>
  (await db('account').where({ mail }).first()) as AccountRow | undefined;

export const accountOf = async (db: Knex, personId: string): Promise<AccountRow | undefined> =>
  (await db('account').where({ person_id: personId }).first()) as AccountRow | undefined;

/** Where a request comes from, as far as it can be told. */
export interface From {
  address: string;
  agent: string;
}

/** Begins a session; gives the secret the browser keeps. */
export async function beginSession(db: Knex, personId: string, from: From): Promise<string> {
  const secret = newSecret();
  await db('session').insert({
    id: newId(),
    hash: hashOf(secret),
    person_id: personId,
    made: now(),
    seen: now(),
    expires: inDays(SESSION_DAYS),
    agent: from.agent.slice(0, 300),
    address: from.address.slice(0, 60),
  });
  return secret;
}

export interface SessionFound {
  id: string;
  person_id: string;
  name: string;
  mail: string;
  keeper: number;
  seen: string;
}

/** The session a secret opens, with whose it is. */
export const sessionBy = async (db: Knex, secret: string): Promise<SessionFound | undefined> =>
  (await db('session')
    .join('person', 'person.id', 'session.person_id')
    .join('account', 'account.person_id', 'session.person_id')
    .where('session.hash', hashOf(secret))
    .where('session.expires', '>', now())
    .first(
      'session.id',
      'session.person_id',
      'session.seen',
      'person.name',
      'account.mail',
      'account.keeper',
    )) as SessionFound | undefined;

export interface TokenRow {
  id: string;
  person_id: string;
  library_id: string;
  name: string;
  may: 'read' | 'capture' | 'all';
  made: string;
  expires: string | null;
  used: string | null;
}

/** The token a secret is, while it lasts and its person has an account. */
export const tokenBy = async (db: Knex, secret: string): Promise<TokenRow | undefined> =>
  (await db('token')
    .join('account', 'account.person_id', 'token.person_id')
    .where('token.hash', hashOf(secret))
    .where((q) => void q.whereNull('token.expires').orWhere('token.expires', '>', now()))
    .first('token.*')) as TokenRow | undefined;

/** A session as it is shown: where and when it is used, and whether it is the one that asks. */
export interface SessionShown {
  id: string;
  made: string;
  seen: string;
  agent: string;
  address: string;
  here: boolean;
}
/** A token as it is shown: its secret is not kept. */
export interface TokenShown {
  id: string;
  name: string;
  may: TokenRow['may'];
  library: string;
  made: string;
  used: string | null;
  expires: string | null;
}

/** The sessions of somebody that are not over, the latest used first. */
export const sessionsOf = async (db: Knex, personId: string): Promise<Omit<SessionShown, 'here'>[]> =>
  (await db('session')
    .where({ person_id: personId })
    .where('expires', '>', now())
    .orderBy('seen', 'desc')
    .select('id', 'made', 'seen', 'agent', 'address')) as Omit<SessionShown, 'here'>[];

/** The tokens of somebody, the latest made first. */
export const tokensOf = async (db: Knex, personId: string): Promise<TokenShown[]> =>
  (await db('token')
    .join('library', 'library.id', 'token.library_id')
    .where({ person_id: personId })
    .orderBy('token.made', 'desc')
    .select(
      'token.id',
      'token.name',
      'token.may',
      'token.made',
      'token.used',
      'token.expires',
      db.raw('library.name AS library'),
    )) as TokenShown[];

/** Gives somebody an account. */
export async function insertAccount(
  db: Knex,
  personId: string,
  mail: string,
  phrase: string,
  keeper: boolean,
): Promise<void> {
  await db('account').insert({ person_id: personId, mail, phrase, keeper, made: now() });
}

/** Changes what is kept of an account. */
export async function updateAccount(
  db: Knex,
  personId: string,
  columns: Partial<Omit<AccountRow, 'person_id' | 'keeper' | 'made'>>,
): Promise<void> {
  await db('account').where({ person_id: personId }).update(columns);
}

/** Whose account has a mail address, and what they are called. */
export const personByMail = async (
  db: Knex,
  mail: string,
): Promise<{ person_id: string; name: string } | undefined> =>
  (await db('account')
    .join('person', 'person.id', 'account.person_id')
    .where({ mail })
    .first('account.person_id', 'person.name')) as { person_id: string; name: string } | undefined;

/** Ends sessions of somebody: all, one of them, or all but one. */
export async function deleteSessions(
  db: Knex,
  personId: string,
  which: { only: string } | { but: string } | undefined = undefined,
): Promise<void> {
  const own = db('session').where({ person_id: personId });
  if (which) void ('only' in which ? own.where({ id: which.only }) : own.whereNot({ id: which.but }));
  await own.delete();
}

/** Keeps a token by what its secret hashes to. */
export async function insertToken(
  db: Knex,
  secret: string,
  row: Pick<TokenRow, 'person_id' | 'library_id' | 'name' | 'may' | 'expires'>,
): Promise<void> {
  await db('token').insert({ ...row, id: newId(), hash: hashOf(secret), made: now() });
}

/** Deletes a token of somebody; gives it, or nothing where they have none. */
export async function deleteToken(
  db: Knex,
  personId: string,
  id: string,
): Promise<{ name: string; library_id: string } | undefined> {
  const own = { id, person_id: personId };
  const token = (await db('token').where(own).first('name', 'library_id')) as
    { name: string; library_id: string } | undefined;
  if (token) await db('token').where(own).delete();
  return token;
}

/** Deletes all tokens of somebody. */
export async function deleteTokens(db: Knex, personId: string): Promise<void> {
  await db('token').where({ person_id: personId }).delete();
}

/** Takes all tokens back that somebody has for the library. */
export async function dropTokensHere(ctx: Context, personId: string): Promise<void> {
  await scoped(ctx, 'token').where({ person_id: personId }).delete();
}

/** Deletes all passkeys of somebody. */
export async function deletePasskeys(db: Knex, personId: string): Promise<void> {
  await db('passkey').where({ person_id: personId }).delete();
}

/** Keeps a way back in by what its secret hashes to. One that the person was sent takes the place of the one sent before; one that is given, of all. */
export async function insertWayBack(
  db: Knex,
  secret: string,
  of: { person_id: string; by_id: string },
  days: number,
): Promise<void> {
  await db('way_back')
    .where(of.by_id === of.person_id ? of : { person_id: of.person_id })
    .delete();
  await db('way_back').insert({
    ...of,
    id: newId(),
    hash: hashOf(secret),
    made: now(),
    expires: inDays(days),
  });
}

/** What a secret that leads back in is of; nothing where it is none or is over. */
export const wayBackBy = async (db: Knex, secret: string) => {
  const row = (await db('way_back')
    .join('person', 'person.id', 'way_back.person_id')
    .join('account', 'account.person_id', 'way_back.person_id')
    .where({ hash: hashOf(secret) })
    .first(
      'way_back.person_id',
      'way_back.by_id',
      'way_back.expires',
      'person.name',
      'account.mail',
      'account.code_secret',
    )) as
    | {
        person_id: string;
        by_id: string;
        expires: string;
        name: string;
        mail: string;
        code_secret: string | null;
      }
    | undefined;
  return row && !isOver(row.expires) ? row : undefined;
};

/** Uses a way back in up; gives whether it was there. */
export const deleteWayBack = async (db: Knex, secret: string): Promise<boolean> =>
  ((await db('way_back')
    .where({ hash: hashOf(secret) })
    .delete()) as number) === 1;
