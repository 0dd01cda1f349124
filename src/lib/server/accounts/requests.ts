import { z } from 'zod';
import {
  accountChange,
  accountWords,
  codeAsked,
  passkeyWords,
  phraseAsked,
  phraseChange,
} from '../../core/forms';

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
export const wayBackTaken = phraseAsked.extend({ secret: z.string().max(200) });

/** What is done to passkeys. */
export const passkeyChange = z.discriminatedUnion('act', [
  phraseAsked.extend({ act: z.literal('begin') }),
  z.strictObject({
    act: z.literal('confirm'),
    offer: z.string().max(60),
    answer: z.record(z.string(), z.unknown()),
    name: passkeyWords.shape.name,
  }),
  z.strictObject({ act: z.literal('drop'), id: z.string().max(1_400) }),
]);

/** What is changed of an account: what one is called and where mail goes, or its pass phrase. */
export const ownAccountChange = z.union([accountChange, phraseChange]);

/** A session that ends: this one, another, or all others. */
export const sessionEnded = z.strictObject({ session: z.string().max(60) });

/** What is done to codes. */
export const codesChange = z.discriminatedUnion('act', [
  phraseAsked.extend({ act: z.literal('begin') }),
  codeAsked.extend({ act: z.literal('confirm') }),
  phraseAsked.extend({ act: z.literal('drop') }),
]);

/** A token that is taken back. */
export const tokenDropped = z.strictObject({ id: z.string().max(60) });
