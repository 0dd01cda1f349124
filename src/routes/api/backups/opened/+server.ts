import { nothing } from '$lib/server/requests';
import { checkKeeper, closeOpened, openOwn, ownBackup } from '$lib/server/backup';
import { asks } from '../../../answer';
import type { RequestHandler } from './$types';

/** Opens a backup of this server, to bring libraries back out of it. */
export const POST: RequestHandler = asks(ownBackup, async ({ name }, _ctx, { locals }) => {
  checkKeeper(locals.asker);
  await openOwn(name);
});

/** Closes the one that is open. */
export const DELETE: RequestHandler = asks(nothing, async (_given, _ctx, { locals }) => {
  checkKeeper(locals.asker);
  await closeOpened();
});
