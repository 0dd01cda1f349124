import { bringTo, crossingRequest, takeBack, crossingAsked } from '$lib/server/crossing';
import { changes } from '../../answer';

/** Brings sources to another library. */
export const POST = changes(crossingRequest, (said, ctx) => bringTo(ctx, said));

/** Takes that back. */
export const DELETE = changes(crossingAsked, (said, ctx) => takeBack(ctx, said));
