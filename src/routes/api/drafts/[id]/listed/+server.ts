import { changeListed, listedChange } from '$lib/server/drafts';
import { changes, idOf } from '../../../../answer';

/** Puts sources in the list of a draft that it does not cite. */
export const POST = changes(listedChange, (said, ctx, event) => changeListed(ctx, idOf(event), said));
