import { keepPassage, newPassage } from '$lib/server/passages';
import { changes } from '../../answer';

/** Keeps a passage of a copy. */
export const POST = changes(newPassage, (given, ctx) => keepPassage(ctx, given));
