import { z } from 'zod';
import { openDraft } from '$lib/server/drafts';
import { changes, idOf } from '../../../../answer';

/** The draft of a project, made when there is none. */
export const POST = changes(z.strictObject({}), (_given, ctx, event) => openDraft(ctx, idOf(event)));
