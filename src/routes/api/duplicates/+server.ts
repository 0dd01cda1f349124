import { decision, keepApart, notApart, relate, unrelate } from '$lib/server/duplicates';
import { changes } from '../../answer';

/** What a person says of sources that look like one work. */
export const POST = changes(decision, async (given, ctx) => {
  if (given.act === 'apart') return keepApart(ctx, given.id, given.others);
  if (given.act === 'not-apart') return notApart(ctx, given.id, given.others);
  if (given.act === 'relate') return relate(ctx, given.id, given.others, given.kind);
  return unrelate(ctx, given.id, given.others, given.act === 'relate-again');
});
