import { z } from 'zod';
import { restoreRevision } from '$lib/server/sources';
import { changes, idOf } from '../../../../answer';

/** Brings a source back to an earlier revision. */
export const POST = changes(z.object({ number: z.number().int().min(1) }), ({ number }, ctx, event) =>
  restoreRevision(ctx, idOf(event), number),
);
