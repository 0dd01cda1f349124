import { z } from 'zod';
import { nfc } from '../text';
import { mailAddress } from './mail';

const name = z
  .string()
  .trim()
  .min(1, { message: 'Say what you are called.' })
  .max(120)
  .transform((text) => nfc(text));
/** As it was typed; what is asked of it is said where it is set. */
const phrase = z.string().min(1, { message: 'Type the pass phrase.' }).max(1_000);

/** What somebody gives to sign in; the code where they use codes. */
export const signInWords = z.strictObject({
  mail: mailAddress,
  phrase,
  code: z.string().max(20).default(''),
});
/** What a new account is made of. */
export const accountWords = z.strictObject({ name, mail: mailAddress, phrase });
/** What is changed of an account, with the pass phrase it is held by now. */
export const accountChange = z.strictObject({ name, mail: mailAddress, phrase });
/** A new pass phrase, with the one there is. */
export const phraseChange = z.strictObject({ phrase, next: phrase });
/** Where a way back in is sent. */
export const forgottenWords = z.strictObject({ mail: mailAddress });

/** A new pass phrase, where the old one is not asked. */
export const newPhrase = z.strictObject({
  phrase: z.string().min(1, { message: 'Type a new pass phrase.' }).max(1_000),
});

/** The pass phrase, where somebody is to be sure that it is they who ask. */
export const phraseAsked = z.strictObject({ phrase });
/** The code an app shows (RFC 6238). */
export const codeAsked = z.strictObject({
  code: z.string().trim().min(1, { message: 'Type the code the app shows.' }).max(20),
});
/** A new passkey: what its device is called, and the pass phrase. */
export const passkeyWords = z.strictObject({
  name: z
    .string()
    .trim()
    .max(120)
    .transform((said) => said || 'A device'),
  phrase,
});

/** A token: what it is for, what it may, and for how many days. */
export const tokenWords = z.strictObject({
  name: z.string().trim().min(1, { message: 'Say what it is for.' }).max(120),
  may: z.enum(['read', 'capture', 'all']),
  days: z.number().int().min(1).max(3_650).nullable(),
});
