import { binMany } from '$lib/server/many';
import { sourcesBinned } from '$lib/server/sources';
import { changes } from '../../../answer';

/** Puts sources in the bin or takes them out; many as a job. */
export const POST = changes(sourcesBinned, ({ ids, binned }, ctx) => binMany(ctx, ids, binned));
