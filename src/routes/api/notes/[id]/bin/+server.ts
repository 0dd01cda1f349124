import { toBin } from '$lib/server/requests';
import { binNote } from '$lib/server/notes';
import { changes, idOf } from '../../../../answer';

/** Puts a note in the bin or takes it out. */
export const POST = changes(toBin, ({ binned }, ctx, event) => binNote(ctx, idOf(event), binned));
