import { nothing } from '$lib/server/requests';
import { bringMarks } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Takes over what other reader programs marked in the PDF of a copy. */
export const POST = changes(nothing, (_given, ctx, event) => bringMarks(ctx, idOf(event)));
