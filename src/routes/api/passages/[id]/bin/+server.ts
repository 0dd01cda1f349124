import { z } from 'zod';
import { binPassage } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Puts a passage in the bin or takes it out. */
export const POST = changes(z.object({ binned: z.boolean() }), async ({ binned }, ctx, event) => {
  const { revisionId } = await binPassage(ctx, idOf(event), binned);
  return { revisionId };
});
