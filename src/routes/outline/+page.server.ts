import type { PageServerLoad } from './$types';
import { PASSAGE_KINDS, TINTS } from '$lib/core/passages';
import { listPassages, tagsOfPassages } from '$lib/server/passages';
import { itemsOfOutline, outlinesOf } from '$lib/server/projects';
import { shortLabel } from '$lib/core/source';
import { allTags, getSources, listSources } from '$lib/server/sources';
import { lookOf } from '../look';

/** How many the shelf shows; what one looks for is narrowed to. */
const ON_SHELF = 200;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:projects', 'retexa:sources', 'retexa:passages');
  const { ctx, projectId } = locals;
  const get = <T extends string>(name: string, allowed?: readonly T[]): T | undefined => {
    const value = url.searchParams.get(name)?.trim() as T | undefined;
    return value && (!allowed || allowed.includes(value)) ? (value.slice(0, 300) as T) : undefined;
  };
  const shelf = get('shelf', ['passages', 'sources'] as const) ?? 'passages';
  if (!projectId)
    return { sections: [], items: [], shelf, passages: [], sources: [], tags: [], onlyOf: '', onShelf: 0 };
  const [text, kind, tint, all] = [get('q'), get('kind', PASSAGE_KINDS), get('tint', TINTS), get('all')];
  const [tag, sourceId, sectionId] = [get('tag'), get('source'), all ? get('section') : undefined];
  const [outlines, items, tags, [onlyOf], passages, sources] = await Promise.all([
    outlinesOf(ctx),
    itemsOfOutline(ctx, projectId),
    shelf === 'passages' ? tagsOfPassages(ctx).then((all) => all.map((t) => t.tag)) : allTags(ctx),
    sourceId ? getSources(ctx, [sourceId]) : [],
    shelf === 'passages'
      ? listPassages(
          ctx,
          {
            projectId,
            ...(all ? {} : { unplacedIn: projectId }),
            ...(text ? { text } : {}),
            ...(kind ? { kind } : {}),
            ...(tint ? { tint } : {}),
            ...(tag ? { tag } : {}),
            ...(sourceId ? { sourceId } : {}),
            ...(sectionId ? { sectionId } : {}),
          },
          ON_SHELF,
          'source',
        )
      : undefined,
    shelf === 'sources'
      ? listSources(
          ctx,
          {
            projectId,
            ...(all ? (sectionId ? { section: sectionId } : {}) : { section: 'none' }),
            ...(text ? { text } : {}),
            ...(tag ? { tag } : {}),
          },
          await lookOf(locals),
          { from: { offset: 0 }, limit: ON_SHELF, sort: 'author' },
        )
      : undefined,
  ]);
  return {
    sections: outlines.filter((section) => section.projectId === projectId),
    items,
    shelf,
    passages: passages?.items ?? [],
    sources: sources?.items.map(({ id, label, title }) => ({ id, label, title })) ?? [],
    tags,
    onlyOf: onlyOf ? shortLabel(onlyOf.record) : '',
    onShelf: (passages ?? sources)?.total ?? 0,
  };
};
