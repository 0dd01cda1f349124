import type { PageServerLoad } from './$types';
import { sureGroups } from '$lib/server/duplicates';
import { printPreview } from '$lib/server/lists';
import { lookOf } from '../../look';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const { ctx, projectId } = locals;
  const { groups, total } = await sureGroups(ctx, projectId);
  const printed = await printPreview(
    ctx,
    groups.map((g) => g.item),
    await lookOf(locals),
  );
  return { groups: groups.map(({ item: _item, ...g }, i) => ({ ...g, printed: printed[i] })), total };
};
