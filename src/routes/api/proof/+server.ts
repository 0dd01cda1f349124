import { decideMany } from '$lib/server/many';
import { decision } from '$lib/server/proof';
import { changes } from '../../answer';
import { lookOf } from '../../look';

/** Mends what a check found in sources, lets it stand, or asks it again; all or none, and in many as a job. */
export const POST = changes(decision, async (body, ctx, { locals }) =>
  decideMany(ctx, body, await lookOf(locals)),
);
