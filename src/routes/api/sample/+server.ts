import { nothing } from '$lib/server/requests';
import { addSample } from '$lib/server/imports';
import { changes } from '../../answer';

/** Puts a few invented sources into an empty library, to try things with; gives their ids. */
export const POST = changes(nothing, (_given, ctx) => addSample(ctx));
