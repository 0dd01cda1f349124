import { linkPassages, linkRequest, unlinkPassages } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Links a passage to another one, or, without a kind, takes that link away; gives how they were linked before. */
export const POST = changes(linkRequest, ({ to, kind }, ctx, event) =>
  kind ? linkPassages(ctx, idOf(event), to, kind) : unlinkPassages(ctx, idOf(event), to),
);
