import { z } from 'zod';
import { keyOffer, signInByKey } from '$lib/server/accounts';
import { fromOf, keepSession, opens, originOf } from '../../../answer';

/** Asks for a passkey, or signs in by the one that came. */
export const POST = opens(
  z.discriminatedUnion('act', [
    z.strictObject({ act: z.literal('ask') }),
    z.strictObject({
      act: z.literal('sign in'),
      offer: z.string().max(60),
      answer: z.record(z.string(), z.unknown()),
    }),
  ]),
  async (said, event): Promise<object | void> =>
    said.act === 'ask'
      ? keyOffer(originOf(event))
      : keepSession(event, await signInByKey(event.locals.db, said, originOf(event), fromOf(event))),
);
