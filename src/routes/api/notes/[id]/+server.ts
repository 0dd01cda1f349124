import { z } from 'zod';
import { editNote, noteWords } from '$lib/server/services/notes';
import { answer, idOf } from '../../../answer';

/** Changes a note. */
export const PATCH = answer(
  z.object({ base: z.number().int(), change: noteWords.partial() }),
  ({ base, change }, ctx, event) => editNote(ctx, idOf(event), base, change),
);
