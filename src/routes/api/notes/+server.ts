import { keepNote, noteWords } from '$lib/server/services/notes';
import { answer } from '../../answer';

/** Keeps a thought. */
export const POST = answer(noteWords, (said, ctx) => keepNote(ctx, said));
