import { z } from 'zod';
import { binNote } from '$lib/server/services/notes';
import { answer, idOf } from '../../../../answer';

/** Puts a note in the bin or takes it out. */
export const POST = answer(z.object({ binned: z.boolean() }), ({ binned }, ctx, event) =>
  binNote(ctx, idOf(event), binned),
);
