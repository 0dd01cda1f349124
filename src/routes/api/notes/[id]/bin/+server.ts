import { z } from 'zod';
import { binNote } from '$lib/server/notes';
import { changes, idOf } from '../../../../answer';

/** Puts a note in the bin or takes it out. */
export const POST = changes(z.object({ binned: z.boolean() }), ({ binned }, ctx, event) =>
  binNote(ctx, idOf(event), binned),
);
