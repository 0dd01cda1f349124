import type { Knex } from 'knex';
import { hashOf, inDays, newSecret } from '../access/secrets';
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
