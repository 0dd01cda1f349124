import type { Knex } from 'knex';
import { Refusal } from '../access/refusal';

/** How many failures are let go by, for one account from one address, for one address, and for one account from anywhere. */
const LET_GO = { both: 5, address: 30, account: 100 };

/** After this long without a failure nothing is held against anybody, in milliseconds. */
const FORGOTTEN = 60 * 60_000;
const LONGEST_WAIT = 15 * 60_000;

const keysOf = (account: string, address: string): [key: string, letGo: number][] => [
  [`${account} from ${address}`, LET_GO.both],
  [`from ${address}`, LET_GO.address],
  [account, LET_GO.account],
];

/** How long is waited after so many failures, in milliseconds: half a minute, and twice as long each time. */
export const waitAfter = (failed: number, letGo: number): number =>
  failed < letGo ? 0 : Math.min(LONGEST_WAIT, 30_000 * 2 ** (failed - letGo));

/** Refuses who tries too often, before anything is tried. */
export async function checkAttempts(db: Knex, account: string, address: string): Promise<void> {
  for (const [key, letGo] of keysOf(account, address)) {
    const row = (await db('attempt').where({ of: key }).first()) as
      { failed: number; last: string } | undefined;
    if (!row) continue;
    const since = Date.now() - Date.parse(row.last);
    const left = since > FORGOTTEN ? 0 : waitAfter(row.failed, letGo) - since;
    if (left > 0)
      throw new Refusal(
        429,
        `That was tried too often. Wait ${left < 90_000 ? `${Math.ceil(left / 1_000)} seconds` : `${Math.ceil(left / 60_000)} minutes`} and try again.`,
      );
  }
}

/** Holds a failure against an account and an address. */
export async function noteFailure(db: Knex, account: string, address: string): Promise<void> {
  const at = new Date();
  const old = new Date(at.getTime() - FORGOTTEN).toISOString();
  await db('attempt').where('last', '<', old).delete();
  for (const [key] of keysOf(account, address))
    await db('attempt')
      .insert({ of: key, failed: 1, last: at.toISOString() })
      .onConflict('of')
      .merge({ failed: db.raw('attempt.failed + 1'), last: at.toISOString() });
}

/** Forgets what was held against an account from an address: who signs in is who they say. */
export const forgetFailures = (db: Knex, account: string, address: string): Promise<number> =>
  db('attempt')
    .whereIn('of', [`${account} from ${address}`])
    .delete();
