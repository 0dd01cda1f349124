import { z } from 'zod';
import { settle } from '$lib/server/replies';
import { changes, idOf } from '../../../../answer';

/** Says that what is asked at a passage is settled, or is open again. */
export const POST = changes(z.strictObject({ settled: z.boolean() }), ({ settled }, ctx, event) =>
  settle(ctx, idOf(event), settled),
);
