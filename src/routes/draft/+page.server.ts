import type { PageServerLoad } from './$types';
import { findDraft } from '$lib/server/drafts';
import { itemsOfOutline, outlinesOf } from '$lib/server/projects';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:projects', 'retexa:passages');
  const { ctx, projectId } = locals;
  if (!projectId) return { draft: undefined, sections: [], items: [] };
  const [draft, outlines, items] = await Promise.all([
    findDraft(ctx, projectId),
    outlinesOf(ctx),
    itemsOfOutline(ctx, projectId),
  ]);
  return {
    draft: draft && {
      id: draft.id,
      projectId,
      listed: draft.listed,
      template: draft.template?.name ?? '',
    },
    sections: outlines.filter((section) => section.projectId === projectId),
    items,
  };
};
