import { editPassage, passageChange } from '$lib/server/passages';
import { changes, idOf } from '../../../answer';

/** Changes what was said of a passage, or where it stands, on revision `base`. */
export const PATCH = changes(passageChange, (given, ctx, event) => editPassage(ctx, idOf(event), given));
