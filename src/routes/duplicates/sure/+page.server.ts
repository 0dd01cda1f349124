import type { PageServerLoad } from './$types';
import { sureGroups } from '$lib/server/duplicates';
import { printPreview } from '$lib/server/lists';
import { lookOf } from '../../look';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const { ctx, projectId } = locals;
  const { groups, total } = await sureGroups(ctx, projectId);
  const printed = printPreview(
    ctx,
    groups.map((g) => g.item),
    await lookOf(locals),
  ).then((all) => Object.fromEntries(groups.map((group, i) => [group.id, all[i]])));
  // Hundreds take a moment to print: the list is there before.
  return { groups: groups.map(({ item: _item, ...group }) => group), total, printed };
};
