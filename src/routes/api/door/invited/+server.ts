import { z } from 'zod';
import { accountWords } from '$lib/core/forms';
import { takeInvitation } from '$lib/server/libraries';
import { fromOf, keepLibrary, keepSession, opens } from '../../../answer';

/** Takes an invitation, with the account that is signed in or a new one. */
export const POST = opens(
  z.strictObject({ secret: z.string().max(200), account: accountWords.optional() }),
  async ({ secret, account }, event) => {
    const { db, asker } = event.locals;
    const taken = await takeInvitation(db, secret, asker, account, fromOf(event));
    if (taken.session) keepSession(event, taken.session);
    keepLibrary(event, taken.libraryId);
  },
);
