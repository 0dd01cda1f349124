import type { PageServerLoad } from './$types';
import { recentImports } from '$lib/server/imports';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:jobs');
  return { imports: await recentImports(locals.ctx) };
};
