import { binSources, sourcesBinned } from '$lib/server/sources';
import { changes } from '../../../answer';

/** Puts sources in the bin or takes them out. */
export const POST = changes(sourcesBinned, async ({ ids, binned }, ctx) => ({
  revisions: await binSources(ctx, ids, binned),
}));
