import { toShow, shownFixed } from '$lib/server/proof';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** How sources print, and how they would once what a check found is mended. */
export const POST = asks(toShow, async ({ check, ids }, ctx, { locals }) =>
  shownFixed(ctx, check, ids, await lookOf(locals)),
);
