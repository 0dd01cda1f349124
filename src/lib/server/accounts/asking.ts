import type { Knex } from 'knex';
import { inDays } from '../access/secrets';
import { config } from '../config';
import { now } from '../db/ids';
import { log } from '../log';
import { accountsThere, SESSION_DAYS, sessionBy, tokenBy } from './repository';

/** Who asks: somebody alone at their own machine, somebody who signed in, or a program with a token. */
export type Asker =
  | { kind: 'alone' }
  | { kind: 'person'; personId: string; sessionId: string; name: string; mail: string; keeper: boolean }
  | { kind: 'token'; personId: string; libraryId: string; may: 'read' | 'capture' | 'all' };

/** Somebody who signed in. */
export type Signed = Extract<Asker, { kind: 'person' }>;

/** What a request brings to say who sends it. */
export interface Brought {
  cookie: string | undefined;
  /** The `Authorization` header. */
  authorization: string | null;
}

/** What begins a token, so that one that got out is recognised as one. */
export const TOKEN_SIGN = 'rtx_';

const bearerOf = (authorization: string | null): string | undefined =>
  /^Bearer ([\w-]{20,200})$/i.exec(authorization ?? '')?.[1];

/** How long a use is not noted again, in milliseconds: noting is writing. */
const NOTED_MS = 10 * 60_000;

/** Notes behind the request that a session or token was used. */
function noteUse(db: Knex, table: 'session' | 'token', id: string, last: string | null): void {
  if (last && Date.now() - Date.parse(last) < NOTED_MS) return;
  const row = table === 'session' ? { seen: now(), expires: inDays(SESSION_DAYS) } : { used: now() };
  db(table)
    .where({ id })
    .update(row)
    .catch((err: unknown) => log.warn({ err }, 'a use was not noted'));
}

/**
 * Who sends a request; nothing where it must sign in first. Somebody alone needs no account while there is none and the server
 * listens to its own machine only. What is written is written behind the request, by `writes`.
 */
export async function askerOf(db: Knex, writes: Knex, brought: Brought): Promise<Asker | undefined> {
  const bearer = bearerOf(brought.authorization);
  if (bearer) {
    const token = bearer.startsWith(TOKEN_SIGN) ? await tokenBy(db, bearer) : undefined;
    if (!token) return undefined;
    noteUse(writes, 'token', token.id, token.used);
    return { kind: 'token', personId: token.person_id, libraryId: token.library_id, may: token.may };
  }
  if (brought.authorization) return undefined;
  const session = brought.cookie ? await sessionBy(db, brought.cookie) : undefined;
  if (session) {
    noteUse(writes, 'session', session.id, session.seen);
    const { person_id: personId, id: sessionId, name, mail, keeper } = session;
    return { kind: 'person', personId, sessionId, name, mail, keeper: keeper === 1 };
  }
  return !(await accountsThere(db)) && (!config.beyond || config.openToAll) ? { kind: 'alone' } : undefined;
}

/** What a token that only captures may ask for. */
const CAPTURING = /^\/api\/(?:captures(?:\/|$)|known$|jobs\/)/;

/** Whether a token reaches so far. */
export const tokenReaches = (token: { may: string }, path: string): boolean =>
  token.may !== 'capture' || CAPTURING.test(path);

/** What somebody with a token may at most: nothing is handed out with one. */
export const atMostWith = ({ may }: { may: 'read' | 'capture' | 'all' }): 'reader' | 'editor' =>
  may === 'read' ? 'reader' : 'editor';
