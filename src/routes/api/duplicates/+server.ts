import { decision, keepApart, notApart, relate, unrelate } from '$lib/server/duplicates';
import { changes } from '../../answer';

/** What a person says of sources that look like one work. */
export const POST = changes(decision, async (given, ctx) => {
  if (given.act === 'apart') return keepApart(ctx, given.id, given.others);
  if (given.act === 'not-apart') return notApart(ctx, given.id, given.others);
  if (given.act === 'relate') return relate(ctx, given.a, given.b, given.kind);
  return unrelate(ctx, given.a, given.b, given.act === 'relate-again');
});
