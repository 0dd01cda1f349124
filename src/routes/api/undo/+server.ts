import { z } from 'zod';
import { undo } from '$lib/server/sources';
import { changes, ids } from '../../answer';

/** Takes back revisions just made. */
export const POST = changes(z.object({ revisions: ids }), ({ revisions }, ctx) => undo(ctx, revisions));
