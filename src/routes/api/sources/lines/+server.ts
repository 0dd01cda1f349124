import { z } from 'zod';
import { linesOf } from '$lib/server/sources';
import { asks, ids } from '../../../answer';

/** The addresses of some sources, or their titles with the notes on them. */
export const POST = asks(
  z.object({ ids, what: z.enum(['addresses', 'titles with notes']) }),
  ({ ids, what }, ctx) => linesOf(ctx, ids, what),
);
