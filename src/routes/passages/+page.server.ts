import type { PageServerLoad } from './$types';
import { PASSAGE_KINDS, TINTS } from '$lib/core/passages';
import { shortLabel } from '$lib/core/source';
import { usesOf } from '$lib/server/drafts';
import {
  listPassages,
  MOST_PASSAGES,
  PASSAGE_SORTS,
  PASSAGE_STATES,
  passageIdsOf,
  peopleOfPassages,
  tagsOfPassages,
} from '$lib/server/passages';
import { listSections } from '$lib/server/projects';
import { getSources } from '$lib/server/sources';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:passages', 'retexa:sources', 'retexa:projects', 'retexa:tasks', 'retexa:drafts');
  const { ctx, projectId } = locals;
  const get = <T extends string>(name: string, allowed?: readonly T[]): T | undefined => {
    const value = url.searchParams.get(name)?.trim() as T | undefined;
    return value && (!allowed || allowed.includes(value)) ? (value.slice(0, 300) as T) : undefined;
  };
  const [text, kind, tint, tag] = [get('q'), get('kind', PASSAGE_KINDS), get('tint', TINTS), get('tag')];
  const [sourceId, sectionId, personId] = [get('source'), get('section'), get('person')];
  const state = get('state', PASSAGE_STATES);
  const filter = {
    ...(projectId ? { projectId } : {}),
    ...(text ? { text } : {}),
    ...(kind ? { kind } : {}),
    ...(tint ? { tint } : {}),
    ...(tag ? { tag } : {}),
    ...(sourceId ? { sourceId } : {}),
    ...(sectionId ? { sectionId } : {}),
    ...(personId ? { personId } : {}),
    ...(state ? { state } : {}),
  };
  const [list, tags, people, sections, [source]] = await Promise.all([
    listPassages(ctx, filter, 500, get('sort', PASSAGE_SORTS)),
    tagsOfPassages(ctx),
    peopleOfPassages(ctx),
    listSections(ctx),
    sourceId ? getSources(ctx, [sourceId]) : [],
  ]);
  const shown = list.items.length;
  const uses = projectId
    ? await usesOf(
        ctx,
        'passage',
        list.items.map((p) => p.id),
      )
    : {};
  return {
    ...list,
    shown,
    // Where each stands in the text of the project, first.
    inDraft: Object.fromEntries(
      Object.entries(uses).flatMap(([id, all]) => {
        const here = all.find((use) => use.projectId === projectId);
        return here ? [[id, here.part]] : [];
      }),
    ),
    // All that is found goes out, as many as one file takes, not only what is shown.
    ids:
      list.total > shown
        ? await passageIdsOf(ctx, filter, MOST_PASSAGES, get('sort', PASSAGE_SORTS))
        : list.items.map((p) => p.id),
    tags,
    people,
    sections: sections.filter((s) => !projectId || s.projectId === projectId),
    source: source && { id: source.id, label: shortLabel(source.record) },
  };
};
