import type { PageServerLoad } from './$types';
import { listSources, yearsOf } from '$lib/server/sources';
import { filterOf } from '../filter';
import { lookOf } from '../look';

const FIRST = 60;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects');
  const { filter, sort } = filterOf(url, locals);
  const [list, years] = await Promise.all([
    listSources(locals.ctx, filter, await lookOf(locals), { from: { offset: 0 }, limit: FIRST, sort }),
    yearsOf(locals.ctx, filter),
  ]);
  return { ...list, years, sort: String(sort) };
};
