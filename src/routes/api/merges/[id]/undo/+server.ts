import { z } from 'zod';
import { undoMerge } from '$lib/server/services/duplicates';
import { answer, idOf } from '../../../../answer';

/** Undoes a merge. */
export const POST = answer(z.object({}), (_body, ctx, event) => undoMerge(ctx, idOf(event)));
