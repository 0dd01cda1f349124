import { z } from 'zod';
import { undo } from '$lib/server/services/sources';
import { answer, ids } from '../../answer';

/** Takes back revisions just made. */
export const POST = answer(z.object({ revisions: ids }), ({ revisions }, ctx) => undo(ctx, revisions));
