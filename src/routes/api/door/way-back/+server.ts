import { takeWayBack, wayBackTaken } from '$lib/server/accounts';
import { fromOf, keepSession, opens } from '../../../answer';

/** Sets a new pass phrase by a way back in, and lets its person in. */
export const POST = opens(wayBackTaken, async ({ secret, phrase }, event) => {
  const session = await takeWayBack(event.locals.db, secret, phrase, fromOf(event));
  if (session) keepSession(event, session);
});
