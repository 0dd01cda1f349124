import { getSources } from '$lib/server/sources';
import { printEach, printedAsked } from '$lib/server/lists';
import { asks } from '../../answer';
import { lookOf } from '../../look';

/** The printed references of some sources, for rows that had none yet; in another look than the usual when asked. */
export const POST = asks(printedAsked, async ({ ids, look }, ctx, { locals }) =>
  printEach(ctx, await getSources(ctx, ids.slice(0, 200)), look ?? (await lookOf(locals))),
);
