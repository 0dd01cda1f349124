import { keyOffer, signInByKey, passkeyUsed } from '$lib/server/accounts';
import { fromOf, keepSession, opens, originOf } from '../../../answer';

/** Asks for a passkey, or signs in by the one that came. */
export const POST = opens(passkeyUsed, async (said, event): Promise<object | void> =>
  said.act === 'ask'
    ? keyOffer(originOf(event))
    : keepSession(event, await signInByKey(event.locals.db, said, originOf(event), fromOf(event))),
);
