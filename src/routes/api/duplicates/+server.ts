import { z } from 'zod';
import { toCsl } from '$lib/core/source';
import { comparePair, keepApart, merge, mergedRecord, notApart } from '$lib/server/duplicates';
import { printPreview } from '$lib/server/lists';
import { changes, picks } from '../../answer';
import { lookOf } from '../../look';

const pair = z.object({ a: z.string(), b: z.string() });
const body = z.discriminatedUnion('act', [
  pair.extend({ act: z.literal('compare') }),
  pair.extend({ act: z.literal('preview'), picks }),
  pair.extend({ act: z.literal('merge'), picks, bases: z.tuple([z.number().int(), z.number().int()]) }),
  pair.extend({ act: z.literal('apart') }),
  pair.extend({ act: z.literal('not-apart') }),
]);

/** What a person does with a suspected pair. */
export const POST = changes(body, async (given, ctx, { locals }): Promise<unknown> => {
  const { a, b } = given;
  if (given.act === 'compare') return comparePair(ctx, a, b);
  if (given.act === 'apart') return keepApart(ctx, a, b);
  if (given.act === 'not-apart') return notApart(ctx, a, b);
  if (given.act === 'merge') return { merge: await merge(ctx, a, b, given.picks, given.bases) };
  const record = await mergedRecord(ctx, a, b, given.picks);
  return (await printPreview([toCsl(a, record)], await lookOf(locals)))[0];
});
