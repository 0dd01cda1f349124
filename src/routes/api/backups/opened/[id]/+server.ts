import { z } from 'zod';
import { beginBringing, checkKeeper } from '$lib/server/backup';
import { asks, idOf } from '../../../../answer';
import type { RequestHandler } from './$types';

/** Begins to bring a library out of the backup that is open. */
export const POST: RequestHandler = asks(
  z.strictObject({ as: z.string().max(60).optional() }),
  async ({ as }, ctx, event) => {
    checkKeeper(event.locals.asker);
    beginBringing(idOf(event), { personId: ctx.personId, ...(as ? { as } : {}) });
    return Promise.resolve();
  },
);
