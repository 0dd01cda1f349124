import type { PageServerLoad } from './$types';
import { findSource } from '$lib/server/repositories/sources';
import { comparePair, findPairs, undoableMerges } from '$lib/server/services/duplicates';
import { orRefuse } from '../answer';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const { ctx, projectId } = locals;
  const [pairs, merges] = await Promise.all([findPairs(ctx, projectId), undoableMerges(ctx)]);
  const [a, b] = [url.searchParams.get('a'), url.searchParams.get('b')];
  const wanted = pairs.findIndex((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a));
  const at = Math.max(0, wanted);
  const pair = pairs[at];
  if (!pair) return { pairs, merges, at: 0, comparison: undefined, bases: undefined };
  const [comparison, first, second] = await Promise.all([
    orRefuse(comparePair(ctx, pair.a, pair.b)),
    findSource(ctx, pair.a),
    findSource(ctx, pair.b),
  ]);
  return {
    pairs,
    merges,
    at,
    comparison,
    bases: [first?.revision ?? 0, second?.revision ?? 0] as [number, number],
  };
};
