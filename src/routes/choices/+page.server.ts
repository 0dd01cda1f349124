import { may } from '$lib/core/members';
import { listChoices } from '$lib/server/choosing';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:choices', 'retexa:sources');
  return { choices: await listChoices(locals.ctx), edits: may(locals.ctx.role, 'edit') };
};
