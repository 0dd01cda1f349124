import type { PageServerLoad } from './$types';
import { deskOf } from '$lib/server/services/overview';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:data');
  return { desk: await deskOf(locals.ctx, locals.projectId) };
};
