import { may } from '$lib/core/members';
import { getChoice } from '$lib/server/choosing';
import { outlinesOf } from '$lib/server/projects';
import { orRefuse } from '../../answer';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ locals, params, depends }) => {
  depends('retexa:choices', 'retexa:sources', 'retexa:projects');
  const { ctx } = locals;
  return {
    choice: await orRefuse(getChoice(ctx, params.id)),
    outlines: await outlinesOf(ctx),
    edits: may(ctx.role, 'edit'),
  };
};
