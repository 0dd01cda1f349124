import { z } from 'zod';
import { carryPassages } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Carries the passages of a copy over to another copy of the same source. */
export const POST = changes(z.object({ to: z.string().max(60) }), ({ to }, ctx, event) =>
  carryPassages(ctx, idOf(event), to),
);
