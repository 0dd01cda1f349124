import { nothing } from '$lib/server/requests';
import { leadByHand } from '$lib/server/leads';
import { changes, idOf } from '../../../../answer';

/** Makes a source of a lead by hand. */
export const POST = changes(nothing, async (_given, ctx, event) => ({
  id: (await leadByHand(ctx, idOf(event))).id,
}));
