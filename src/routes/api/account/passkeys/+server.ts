import { z } from 'zod';
import { beginPasskey, checkPhrase, confirmPasskey, dropPasskey } from '$lib/server/accounts';
import { ofOneself, originOf } from '../../../answer';

/** Begins a passkey, keeps the one that was made, or takes one off. */
export const POST = ofOneself(
  z.discriminatedUnion('act', [
    z.strictObject({ act: z.literal('begin'), phrase: z.string().min(1).max(1_000) }),
    z.strictObject({
      act: z.literal('confirm'),
      offer: z.string().max(60),
      answer: z.record(z.string(), z.unknown()),
      name: z.string().trim().min(1).max(120),
    }),
    z.strictObject({ act: z.literal('drop'), id: z.string().max(1_400) }),
  ]),
  async (said, who, event): Promise<object | void> => {
    const { db } = event.locals;
    if (said.act === 'begin') {
      await checkPhrase(db, who, said.phrase);
      return beginPasskey(db, who, originOf(event));
    }
    if (said.act === 'confirm') return confirmPasskey(db, who, said, originOf(event));
    return dropPasskey(db, who, said.id);
  },
);
