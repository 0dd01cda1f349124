import { error } from '@sveltejs/kit';
import { asking } from '$lib/core/query';
import { listPassages } from '$lib/server/passages';
import { facetsOf, listSources, withReferences } from '$lib/server/sources';
import { tagsInUse } from '$lib/server/tags';
import { lookOf } from '../../look';
import type { PageServerLoad } from './$types';

const SOURCES = 40;
const PASSAGES = 30;
/** How many other tags, people or titles are named. */
const BESIDE = 12;

/** What of the chosen project, or of all, has a tag, and what that stands with there. */
export const load: PageServerLoad = async ({ params, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:tags', 'retexa:projects');
  const { ctx } = locals;
  const { tag } = params;
  const here = locals.projectId ? { projectId: locals.projectId } : {};
  const filter = { ...here, text: asking(['tag', [tag]]) };
  const look = await lookOf(locals);
  const [tags, sources, passages, facets] = await Promise.all([
    tagsInUse(ctx),
    listSources(ctx, filter, look, { from: { offset: 0 }, limit: SOURCES, sort: 'author' }),
    listPassages(ctx, { ...here, tag }, PASSAGES),
    facetsOf(ctx, filter),
  ]);
  const item = tags.find((one) => one.tag === tag);
  if (!item) error(404, { message: `No source and no passage has the tag ${tag}.` });
  const most = (field: string) =>
    (facets.find((facet) => facet.field === field)?.values ?? [])
      .filter(({ value }) => value !== tag)
      .slice(0, BESIDE);
  return {
    tag: item,
    tags,
    sources: {
      total: sources.total,
      items: await withReferences(ctx, sources.items, look),
    },
    passages,
    beside: { tag: most('tag'), person: most('person'), container: most('container') },
  };
};
