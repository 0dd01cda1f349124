import { undo, undone } from '$lib/server/sources';
import { changes } from '../../answer';

/** Takes back revisions just made. */
export const POST = changes(undone, ({ revisions }, ctx) => undo(ctx, revisions));
