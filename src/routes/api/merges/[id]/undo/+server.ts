import { nothing } from '$lib/server/requests';
import { undoMerge } from '$lib/server/duplicates';
import { changes, idOf } from '../../../../answer';

/** Undoes a merge. */
export const POST = changes(nothing, (_body, ctx, event) => undoMerge(ctx, idOf(event)));
