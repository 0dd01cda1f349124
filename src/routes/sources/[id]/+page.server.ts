import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { shortLabel } from '$lib/core/source';
import { passagesWhere } from '$lib/server/repositories/passages';
import { projectsOf } from '$lib/server/repositories/projects';
import { getSource } from '$lib/server/repositories/sources';
import { doublesOf } from '$lib/server/services/capture';
import { allTags, besideSource } from '$lib/server/services/sources';
import { orRefuse } from '../../answer';

export const load: PageServerLoad = async ({ params, locals, depends }) => {
  depends('retexa:data');
  const { ctx } = locals;
  const source = await orRefuse(getSource(ctx, params.id));
  if (source.mergedInto) redirect(307, `/sources/${source.mergedInto}`);
  const [beside, passages, filed, tags, doubles] = await Promise.all([
    besideSource(ctx, source.id),
    passagesWhere(ctx, { source_id: source.id }),
    projectsOf(ctx, source.id),
    allTags(ctx),
    source.binned ? [] : doublesOf(ctx, source.record, source.id),
  ]);
  return { source, label: shortLabel(source.record), ...beside, passages, filed, tags, doubles };
};
