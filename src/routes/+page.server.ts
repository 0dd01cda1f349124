import type { PageServerLoad } from './$types';
import { deskOf } from '$lib/server/overview';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:passages');
  return { desk: await deskOf(locals.ctx, locals.projectId) };
};
