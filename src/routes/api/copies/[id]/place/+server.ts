import { keepPlace, readingPlace } from '$lib/server/copies';
import { changes, idOf } from '../../../../answer';

/** Puts down where one is in a copy. */
export const POST = changes(readingPlace, (place, ctx, event) => keepPlace(ctx, idOf(event), place));
