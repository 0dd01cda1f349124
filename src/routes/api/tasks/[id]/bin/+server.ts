import { toBin } from '$lib/server/requests';
import { binTask } from '$lib/server/tasks';
import { changes, idOf } from '../../../../answer';

/** Puts a task in the bin or takes it out. */
export const POST = changes(toBin, async ({ binned }, ctx, event) => {
  const { revisionId } = await binTask(ctx, idOf(event), binned);
  return { revisionId };
});
