import { keepNote, noteWords } from '$lib/server/notes';
import { changes } from '../../answer';

/** Keeps a thought. */
export const POST = changes(noteWords, (said, ctx) => keepNote(ctx, said));
