import { binLeads, leadsBinned } from '$lib/server/leads';
import { changes } from '../../../answer';

/** Puts several leads in the bin as one step. */
export const POST = changes(leadsBinned, async ({ ids }, ctx) => ({ revisions: await binLeads(ctx, ids) }));
