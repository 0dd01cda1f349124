import { nothing } from '$lib/server/requests';
import { giveWayBack } from '$lib/server/accounts';
import { idOf, ofOneself } from '../../../../answer';

/** A way back in for who forgot their pass phrase. */
export const POST = ofOneself(nothing, async (_given, who, event) => ({
  secret: await giveWayBack(event.locals.db, who, idOf(event)),
}));
