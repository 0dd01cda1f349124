import { z } from 'zod';
import { toCsl } from '$lib/core/source';
import { mergedRecord } from '$lib/server/duplicates';
import { printPreview } from '$lib/server/lists';
import { asks, picks } from '../../../answer';
import { lookOf } from '../../../look';

/** How what two sources would become prints, with the values picked. */
export const POST = asks(
  z.object({ a: z.string(), b: z.string(), picks }),
  async (given, ctx, { locals }) => {
    const record = await mergedRecord(ctx, given.a, given.b, given.picks);
    return (await printPreview(ctx, [toCsl(given.a, record)], await lookOf(locals)))[0];
  },
);
