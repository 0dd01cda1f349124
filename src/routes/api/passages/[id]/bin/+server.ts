import { toBin } from '$lib/server/requests';
import { binPassage } from '$lib/server/passages';
import { changes, idOf } from '../../../../answer';

/** Puts a passage in the bin or takes it out. */
export const POST = changes(toBin, async ({ binned }, ctx, event) => {
  const { revisionId } = await binPassage(ctx, idOf(event), binned);
  return { revisionId };
});
