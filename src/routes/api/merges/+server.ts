import { merge, toMergeAll } from '$lib/server/duplicates';
import { changes } from '../../answer';

/** Merges one group or several, in one step that is undone in one. */
export const POST = changes(toMergeAll, async ({ groups }, ctx) => ({ merge: await merge(ctx, ...groups) }));
