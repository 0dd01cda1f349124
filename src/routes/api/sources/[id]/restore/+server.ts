import { restoreField, restoreRevision, restoring } from '$lib/server/sources';
import { changes, idOf } from '../../../../answer';

/** Brings a source back to an earlier revision, or one field of it to what it was before a revision. */
export const POST = changes(
  restoring,
  async ({ number, field }, ctx, event): Promise<{ revisionId?: string }> => {
    if (field !== undefined) return restoreField(ctx, idOf(event), number, field);
    await restoreRevision(ctx, idOf(event), number);
    return {};
  },
);
