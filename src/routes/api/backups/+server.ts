import { nothing } from '$lib/server/requests';
import { json } from '@sveltejs/kit';
import { backups, beginBackup, checkKeeper } from '$lib/server/backup';
import { asks, orRefuse } from '../../answer';
import type { RequestHandler } from './$types';

/** How backups stand. */
export const GET: RequestHandler = async ({ locals }) => {
  await orRefuse(Promise.resolve().then(() => checkKeeper(locals.asker)));
  return json(await backups());
};

/** Begins one. */
export const POST = asks(nothing, async (_given, _ctx, { locals }) => {
  checkKeeper(locals.asker);
  beginBackup();
});
