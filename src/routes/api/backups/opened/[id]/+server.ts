import { beginBringing, checkKeeper, bringingAs } from '$lib/server/backup';
import { asks, idOf } from '../../../../answer';
import type { RequestHandler } from './$types';

/** Begins to bring a library out of the backup that is open. */
export const POST: RequestHandler = asks(bringingAs, async ({ as }, ctx, event) => {
  checkKeeper(event.locals.asker);
  beginBringing(idOf(event), { personId: ctx.personId, ...(as ? { as } : {}) });
  return Promise.resolve();
});
