import { z } from 'zod';
import { getSources } from '$lib/server/sources';
import { printEach } from '$lib/server/lists';
import { asks, ids, look } from '../../answer';
import { lookOf } from '../../look';

/** The printed references of some sources, for rows that had none yet; in another look than the usual when asked. */
export const POST = asks(z.object({ ids, look: look.optional() }), async ({ ids, look }, ctx, { locals }) =>
  printEach(ctx, await getSources(ctx, ids.slice(0, 200)), look ?? (await lookOf(locals))),
);
