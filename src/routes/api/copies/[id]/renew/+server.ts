import { nothing } from '$lib/server/requests';
import { renewCopy } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Captures a copy's page again and looks for its passages in it. */
export const POST = changes(nothing, (_body, ctx, event) => renewCopy(ctx, idOf(event)));
