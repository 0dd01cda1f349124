import { tokenWords } from '$lib/core/forms';
import { dropToken, makeToken, tokenDropped } from '$lib/server/accounts';
import { changes, ofOneself, signedIn } from '../../../answer';

/** Makes a token for the library that is chosen. */
export const POST = changes(tokenWords, (said, ctx, { locals }) => {
  signedIn(locals);
  return makeToken(ctx, said);
});

/** Takes one back. */
export const DELETE = ofOneself(tokenDropped, ({ id }, who, { locals: { db } }) => dropToken(db, who, id));
