import type { PageServerLoad } from './$types';
import { tagsInUse } from '$lib/server/tags';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:passages');
  return { tags: await tagsInUse(locals.ctx) };
};
