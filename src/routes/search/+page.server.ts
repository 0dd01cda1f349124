import type { PageServerLoad } from './$types';
import { MOST_QUERY } from '$lib/core/query';
import { FOUND_KINDS, searchEverything } from '$lib/server/search';
import { projectOf } from '../filter';
import { withReferences } from '$lib/server/sources';
import { lookOf } from '../look';

/** How many of a kind are shown when all of it is asked for. */
const ALL = 300;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:notes', 'retexa:leads', 'retexa:projects');
  const words = (url.searchParams.get('q') ?? '').trim().slice(0, MOST_QUERY);
  const projectId = projectOf(url, locals);
  const all = FOUND_KINDS.find((kind) => kind === url.searchParams.get('all'));
  const look = await lookOf(locals);
  const found = await searchEverything(locals.ctx, words, look, {
    projectId,
    limits: all ? { [all]: ALL } : {},
  });
  const items = await withReferences(locals.ctx, found.sources.items, look);
  return {
    words,
    everywhere: projectId === undefined,
    found: { ...found, sources: { ...found.sources, items } },
  };
};
