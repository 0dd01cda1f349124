import type { PageServerLoad } from './$types';
import {
  chosenTogether,
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
  const these = url.searchParams.get('these')?.split(',').filter(Boolean) ?? [];
  const chosen = these.length > 1 ? await orRefuse(chosenTogether(ctx, these)) : undefined;
  return {
    ...around,
    merges,
    apart,
    spellings,
    chosen: chosen && { reasons: chosen.reasons, against: chosen.against },
    comparison: chosen?.comparison ?? (group && (await orRefuse(sourcesOfGroup(ctx, group.id)))),
  };
};
