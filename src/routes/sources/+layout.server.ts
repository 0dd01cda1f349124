import type { LayoutServerLoad } from './$types';
import { outlinesOf } from '$lib/server/projects';

/** The sections, which change less often than what one looks for. */
export const load: LayoutServerLoad = async ({ locals, depends }) => {
  depends('retexa:projects', 'retexa:sources');
  return { outlines: await outlinesOf(locals.ctx) };
};
