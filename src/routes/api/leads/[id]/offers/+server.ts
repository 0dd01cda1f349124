import { nothing } from '$lib/server/requests';
import { lookUp } from '$lib/server/leads';
import { changes, idOf } from '../../../../answer';

/** Looks a lead up at the registry of works. */
export const POST = changes(nothing, async (_given, ctx, event) => ({
  offers: await lookUp(ctx, idOf(event)),
}));
