import { z } from 'zod';
import { binSources } from '$lib/server/sources';
import { changes, ids } from '../../../answer';

/** Puts sources in the bin or takes them out. */
export const POST = changes(z.object({ ids, binned: z.boolean() }), async ({ ids, binned }, ctx) => ({
  revisions: await binSources(ctx, ids, binned),
}));
