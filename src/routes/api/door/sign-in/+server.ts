import { signInWords } from '$lib/core/forms';
import { signIn } from '$lib/server/accounts';
import { fromOf, keepSession, opens } from '../../../answer';

/** Lets somebody in. */
export const POST = opens(signInWords, async (said, event) =>
  keepSession(event, await signIn(event.locals.db, said, fromOf(event))),
);
