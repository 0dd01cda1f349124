import type { PageServerLoad } from './$types';
import { listSources, withReferences, yearsOf } from '$lib/server/sources';
import { filterOf } from '../filter';
import { lookOf } from '../look';

const FIRST = 60;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects');
  const { filter, sort } = filterOf(url, locals);
  const look = await lookOf(locals);
  const [list, years] = await Promise.all([
    listSources(locals.ctx, filter, look, { from: { offset: 0 }, limit: FIRST, sort }),
    yearsOf(locals.ctx, filter),
  ]);
  const items = await withReferences(locals.ctx, list.items, look);
  return { ...list, items, years, sort: String(sort) };
};
