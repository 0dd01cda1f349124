import type { PageServerLoad } from './$types';
import {
  groupsAround,
  keptApart,
  severalSpellings,
  sourcesOfGroup,
  undoableMerges,
} from '$lib/server/duplicates';
import { orRefuse } from '../answer';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const { ctx, projectId } = locals;
  const [around, merges, apart, spellings] = await Promise.all([
    groupsAround(ctx, projectId, url.searchParams.get('with') ?? undefined),
    undoableMerges(ctx),
    keptApart(ctx),
    severalSpellings(ctx),
  ]);
  const group = around.groups[around.at];
  return {
    ...around,
    merges,
    apart,
    spellings,
    comparison: group && (await orRefuse(sourcesOfGroup(ctx, group.id))),
  };
};
