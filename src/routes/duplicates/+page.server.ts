import type { PageServerLoad } from './$types';
import { comparePair, keptApart, pairsAround, undoableMerges } from '$lib/server/duplicates';
import { orRefuse } from '../answer';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:duplicates');
  const { ctx, projectId } = locals;
  const [a, b] = [url.searchParams.get('a'), url.searchParams.get('b')];
  const [around, merges, apart] = await Promise.all([
    pairsAround(ctx, projectId, a && b ? { a, b } : undefined),
    undoableMerges(ctx),
    keptApart(ctx),
  ]);
  const pair = around.pairs[around.at];
  if (!pair) return { ...around, merges, apart, comparison: undefined, bases: undefined };
  const comparison = await orRefuse(comparePair(ctx, pair.a, pair.b));
  const bases: [number, number] = [comparison.a.revision, comparison.b.revision];
  return { ...around, merges, apart, comparison, bases };
};
