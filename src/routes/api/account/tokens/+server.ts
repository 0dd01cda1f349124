import { z } from 'zod';
import { dropToken, makeToken } from '$lib/server/accounts';
import { changes, ofOneself, signedIn } from '../../../answer';

const token = z.strictObject({
  name: z.string().trim().min(1, { message: 'Say what it is for.' }).max(120),
  may: z.enum(['read', 'capture', 'all']),
  days: z.number().int().min(1).max(3_650).nullable(),
});

/** Makes a token for the library that is chosen. */
export const POST = changes(token, (said, ctx, { locals }) => {
  signedIn(locals);
  return makeToken(ctx, said);
});

/** Takes one back. */
export const DELETE = ofOneself(
  z.strictObject({ id: z.string().max(60) }),
  ({ id }, who, { locals: { db } }) => dropToken(db, who, id),
);
