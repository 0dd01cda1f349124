import type { PageServerLoad } from './$types';
import { recentImports } from '$lib/server/services/import-reports';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:data');
  return { imports: await recentImports(locals.ctx) };
};
