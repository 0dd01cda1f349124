import { draftOutRequest, writeDraft } from '$lib/server/drafts';
import { asks, idOf } from '../../../../answer';
import { lookOf } from '../../../../look';

/** A draft as a file, in the style of its project. */
export const POST = asks(draftOutRequest, async (given, ctx, event) =>
  writeDraft(ctx, idOf(event), given, await lookOf(event.locals)),
);
