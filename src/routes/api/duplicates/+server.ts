import { z } from 'zod';
import { keepApart, merge, notApart } from '$lib/server/duplicates';
import { changes, picks } from '../../answer';

const pair = z.object({ a: z.string(), b: z.string() });
const body = z.discriminatedUnion('act', [
  pair.extend({ act: z.literal('merge'), picks, bases: z.tuple([z.number().int(), z.number().int()]) }),
  pair.extend({ act: z.literal('apart') }),
  pair.extend({ act: z.literal('not-apart') }),
]);

/** What a person does with a suspected pair. */
export const POST = changes(body, async (given, ctx): Promise<unknown> => {
  const { a, b } = given;
  if (given.act === 'apart') return keepApart(ctx, a, b);
  if (given.act === 'not-apart') return notApart(ctx, a, b);
  return { merge: await merge(ctx, a, b, given.picks, given.bases) };
});
