import { saidIn } from '$lib/server/choosing';
import { orRefuse } from '../../answer';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params, depends }) => {
  depends('retexa:choices', 'retexa:votes');
  return { said: await orRefuse(saidIn(locals.ctx, params.id)) };
};
