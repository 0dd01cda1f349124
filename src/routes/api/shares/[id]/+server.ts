import { nothing } from '$lib/server/requests';
import { withdrawShare } from '$lib/server/shares';
import { changes, idOf } from '../../../answer';

/** Withdraws a link. */
export const DELETE = changes(nothing, (_given, ctx, event) => withdrawShare(ctx, idOf(event)));
