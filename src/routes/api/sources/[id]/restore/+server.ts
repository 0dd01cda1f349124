import { z } from 'zod';
import { restoreRevision } from '$lib/server/services/sources';
import { answer, idOf } from '../../../../answer';

/** Brings a source back to an earlier revision. */
export const POST = answer(z.object({ number: z.number().int().min(1) }), ({ number }, ctx, event) =>
  restoreRevision(ctx, idOf(event), number),
);
