import { nothing } from '$lib/server/requests';
import { openDraft } from '$lib/server/drafts';
import { changes, idOf } from '../../../../answer';

/** The draft of a project, made when there is none. */
export const POST = changes(nothing, (_given, ctx, event) => openDraft(ctx, idOf(event)));
