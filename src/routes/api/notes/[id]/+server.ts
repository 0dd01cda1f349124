import { editNote, noteEdit } from '$lib/server/notes';
import { changes, idOf } from '../../../answer';

/** Changes a note. */
export const PATCH = changes(noteEdit, ({ base, change }, ctx, event) =>
  editNote(ctx, idOf(event), base, change),
);
