import { z } from 'zod';
import { restoreField, restoreRevision } from '$lib/server/sources';
import { changes, idOf } from '../../../../answer';

/** Brings a source back to an earlier revision, or one field of it to what it was before a revision. */
export const POST = changes(
  z.object({ number: z.number().int().min(1), field: z.string().max(60).optional() }),
  async ({ number, field }, ctx, event): Promise<{ revisionId?: string }> => {
    if (field !== undefined) return restoreField(ctx, idOf(event), number, field);
    await restoreRevision(ctx, idOf(event), number);
    return {};
  },
);
