import type { PageServerLoad } from './$types';
import { findPairs } from '$lib/server/services/duplicates';
import { facetsOf, listSources } from '$lib/server/services/sources';
import { filterOf } from '../filter';
import { lookOf } from '../look';

const FIRST = 60;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:data');
  const { filter, sort } = filterOf(url, locals);
  const [list, facets, pairs] = await Promise.all([
    listSources(locals.ctx, filter, await lookOf(locals), { offset: 0, limit: FIRST, sort }),
    facetsOf(locals.ctx, locals.projectId),
    findPairs(locals.ctx, locals.projectId),
  ]);
  return {
    ...list,
    facets,
    sort,
    twice: Object.fromEntries(
      pairs.flatMap((p) => [
        [p.a, `/duplicates?a=${p.a}&b=${p.b}`],
        [p.b, `/duplicates?a=${p.a}&b=${p.b}`],
      ]),
    ),
  };
};
