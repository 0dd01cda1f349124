import { nothing } from '$lib/server/requests';
import { forgetQuery } from '$lib/server/queries';
import { changes, idOf } from '../../../answer';

/** Lets go of a kept query, and gives it. */
export const DELETE = changes(nothing, (_, ctx, event) => forgetQuery(ctx, idOf(event)));
