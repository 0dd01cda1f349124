import { decide, decision } from '$lib/server/proof';
import { changes } from '../../answer';
import { lookOf } from '../../look';

/** Mends what a check found in sources, lets it stand, or asks it again; all or none. */
export const POST = changes(decision, async (body, ctx, { locals }) =>
  decide(ctx, body, await lookOf(locals)),
);
