import type { PageServerLoad } from './$types';
import { binOf } from '$lib/server/services/overview';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:data');
  return { bin: await binOf(locals.ctx) };
};
