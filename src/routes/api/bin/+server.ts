import { deleteAllForGood, binDeleted } from '$lib/server/bin';
import { changes } from '../../answer';

/** Deletes for good what lies in the bin, by kind. */
export const DELETE = changes(binDeleted, (given, ctx) => deleteAllForGood(ctx, given));
