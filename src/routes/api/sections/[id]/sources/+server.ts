import { changePlaced, placing } from '$lib/server/projects';
import { changes, idOf } from '../../../../answer';

/** Places sources in a section, takes them out or orders them, and says what takes that back. */
export const POST = changes(placing, (said, ctx, event) => changePlaced(ctx, idOf(event), said));
