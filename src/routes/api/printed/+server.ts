import { z } from 'zod';
import { getSources } from '$lib/server/repositories/sources';
import { printEach } from '$lib/server/services/printing';
import { answer, ids } from '../../answer';
import { lookOf } from '../../look';

/** The printed references of some sources, for rows that had none yet. */
export const POST = answer(z.object({ ids }), async ({ ids }, ctx, { locals }) =>
  printEach(ctx, await getSources(ctx, ids.slice(0, 200)), await lookOf(locals)),
);
