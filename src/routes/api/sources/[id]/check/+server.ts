import { checkSource, sourceChecked } from '$lib/server/sources';
import { changes, idOf } from '../../../../answer';

/** Marks a source as checked or sends it back to Intake. */
export const POST = changes(sourceChecked, async ({ base, checked }, ctx, event) => {
  const { revisionId } = await checkSource(ctx, idOf(event), base, checked);
  return { revisionId };
});
