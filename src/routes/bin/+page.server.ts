import type { PageServerLoad } from './$types';
import { binOf } from '$lib/server/overview';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:notes', 'retexa:leads', 'retexa:projects');
  return { bin: await binOf(locals.ctx) };
};
