import { backups, checkKeeper, opening } from '$lib/server/backup';
import { orRefuse } from '../answer';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:backups');
  await orRefuse(Promise.resolve().then(() => checkKeeper(locals.asker)));
  return { backups: await backups(), opening: await opening() };
};
