import { undoMany } from '$lib/server/many';
import { undone } from '$lib/server/sources';
import { changes } from '../../answer';

/** Takes back revisions just made; many as a job. */
export const POST = changes(undone, ({ revisions }, ctx) => undoMany(ctx, revisions));
