import type { PageServerLoad } from './$types';
import { facetsOf, listSources } from '$lib/server/sources';
import { filterOf } from '../filter';
import { lookOf } from '../look';

const FIRST = 60;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects');
  const { filter, sort } = filterOf(url, locals);
  const [list, facets] = await Promise.all([
    listSources(locals.ctx, filter, await lookOf(locals), { from: { offset: 0 }, limit: FIRST, sort }),
    facetsOf(locals.ctx, filter),
  ]);
  return { ...list, facets, sort };
};
