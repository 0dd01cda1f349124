import { toCsl } from '$lib/core/source';
import { mergedRecord, toMerge } from '$lib/server/duplicates';
import { printPreview } from '$lib/server/lists';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** How what several sources would become prints, with the values picked. */
export const POST = asks(toMerge.omit({ bases: true }), async ({ ids, picks }, ctx, { locals }) => {
  const record = await mergedRecord(ctx, ids, picks);
  return (await printPreview(ctx, [toCsl(ids[0]!, record)], await lookOf(locals)))[0];
});
