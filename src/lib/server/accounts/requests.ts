import { z } from 'zod';
import { accountChange, accountWords, phraseChange } from '../../core/forms';

/** A pass phrase as it is given. */
const phraseGiven = z.string().min(1).max(1_000);

/** What is said while somebody signs in by a passkey. */
export const passkeyUsed = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('ask') }),
  z.strictObject({
    act: z.literal('sign in'),
    offer: z.string().max(60),
    answer: z.record(z.string(), z.unknown()),
  }),
]);

/** The first account, with the secret that was printed where the server was started. */
export const firstAccount = accountWords.extend({ secret: z.string().max(200).default('') });

/** A way back in, by its secret, and the new pass phrase. */
export const wayBackTaken = z.strictObject({
  secret: z.string().max(200),
  phrase: phraseGiven,
});

/** What is done to passkeys. */
export const passkeyChange = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('begin'), phrase: phraseGiven }),
  z.strictObject({
    act: z.literal('confirm'),
    offer: z.string().max(60),
    answer: z.record(z.string(), z.unknown()),
    name: z.string().trim().min(1).max(120),
  }),
  z.strictObject({ act: z.literal('drop'), id: z.string().max(1_400) }),
]);

/** What is changed of an account: what one is called and where mail goes, or its pass phrase. */
export const ownAccountChange = z.union([accountChange, phraseChange]);

/** A session that ends: this one, another, or all others. */
export const sessionEnded = z.strictObject({ session: z.string().max(60) });

/** What is done to codes. */
export const codesChange = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('begin'), phrase: phraseGiven }),
  z.strictObject({ act: z.literal('confirm'), code: z.string().max(20) }),
  z.strictObject({ act: z.literal('drop'), phrase: phraseGiven }),
]);

/** A token: what it is for, what it may, and for how many days. */
export const tokenWords = z.strictObject({
  name: z.string().trim().min(1, { message: 'Say what it is for.' }).max(120),
  may: z.enum(['read', 'capture', 'all']),
  days: z.number().int().min(1).max(3_650).nullable(),
});

/** A token that is taken back. */
export const tokenDropped = z.strictObject({ id: z.string().max(60) });
