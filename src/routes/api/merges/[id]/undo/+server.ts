import { z } from 'zod';
import { undoMerge } from '$lib/server/duplicates';
import { changes, idOf } from '../../../../answer';

/** Undoes a merge. */
export const POST = changes(z.object({}), (_body, ctx, event) => undoMerge(ctx, idOf(event)));
