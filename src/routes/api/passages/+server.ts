import { keepPassage, newPassage } from '$lib/server/services/passages';
import { answer } from '../../answer';

/** Keeps a passage of a copy. */
export const POST = answer(newPassage, (given, ctx) => keepPassage(ctx, given));
