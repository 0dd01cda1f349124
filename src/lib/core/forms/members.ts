import { z } from 'zod';
import { INVITED_AS, ROLES } from '../members';
import { nfc } from '../text';
import { mailAddress } from './mail';

/** What a library is called. */
export const libraryWords = z.strictObject({
  name: z.string().trim().min(1, { message: 'A library needs a name.' }).max(200).transform(nfc),
});

/** Somebody asked into a library: as what, for whom the link is, and how many days it is good for. */
export const invitationWords = z.strictObject({
  role: z.enum(INVITED_AS),
  /** Whom it is for, so that links are told apart. */
  name: z.string().trim().min(1, { message: 'Say whom it is for.' }).max(120).transform(nfc),
  days: z.number().int().min(1).max(90),
  /** Where the link is sent to as well; to nobody where it is empty. */
  mail: z.union([z.literal(''), mailAddress]).default(''),
});

/** Somebody with an account here, added by their mail address. */
export const memberWords = z.strictObject({
  mail: mailAddress,
  role: z.enum(INVITED_AS),
});

export const roleWords = z.strictObject({ role: z.enum(ROLES) });
