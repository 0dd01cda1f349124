import { takeInvitation, invitationTaken } from '$lib/server/libraries';
import { fromOf, keepLibrary, keepSession, opens } from '../../../answer';

/** Takes an invitation, with the account that is signed in or a new one. */
export const POST = opens(invitationTaken, async ({ secret, account }, event) => {
  const { db, asker } = event.locals;
  const taken = await takeInvitation(db, secret, asker, account, fromOf(event));
  if (taken.session) keepSession(event, taken.session);
  keepLibrary(event, taken.libraryId);
});
