import { setUp, firstAccount } from '$lib/server/accounts';
import { fromOf, keepSession, opens } from '../../../answer';

/** Makes the first account, and lets its person in. */
export const POST = opens(firstAccount, async ({ secret, ...said }, event) =>
  keepSession(event, await setUp(event.locals.db, said, secret, fromOf(event))),
);
