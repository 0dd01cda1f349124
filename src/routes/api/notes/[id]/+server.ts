import { z } from 'zod';
import { editNote, noteChange } from '$lib/server/notes';
import { changes, idOf } from '../../../answer';

/** Changes a note. */
export const PATCH = changes(
  z.object({ base: z.number().int(), change: noteChange }),
  ({ base, change }, ctx, event) => editNote(ctx, idOf(event), base, change),
);
