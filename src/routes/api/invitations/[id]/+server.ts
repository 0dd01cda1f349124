import { nothing } from '$lib/server/requests';
import { withdrawInvitation } from '$lib/server/libraries';
import { changes, idOf } from '../../../answer';

/** Takes an invitation back. */
export const DELETE = changes(nothing, (_given, ctx, event) => withdrawInvitation(ctx, idOf(event)));
