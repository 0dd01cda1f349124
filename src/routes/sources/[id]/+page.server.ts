import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { shortLabel } from '$lib/core/source';
import { passagesWhere } from '$lib/server/passages';
import { projectsOf, sectionsOf } from '$lib/server/projects';
import { getSource, allTags, besideSource } from '$lib/server/sources';
import { doublesOfSource, relatedTo } from '$lib/server/duplicates';
import { listLeads } from '$lib/server/leads';
import { tagsOfPassages } from '$lib/server/passages';
import { readingOf } from '$lib/server/reading';
import { listTasks } from '$lib/server/tasks';
import { listNotes } from '$lib/server/notes';
import { printedFields } from '$lib/server/lists';
import { lookOf } from '../../look';
import { orRefuse } from '../../answer';

export const load: PageServerLoad = async ({ params, locals, depends }) => {
  depends(
    'retexa:sources',
    'retexa:duplicates',
    'retexa:passages',
    'retexa:notes',
    'retexa:leads',
    'retexa:projects',
    'retexa:tasks',
  );
  const { ctx } = locals;
  const source = await orRefuse(getSource(ctx, params.id));
  if (source.mergedInto) redirect(307, `/sources/${source.mergedInto}`);
  const { style } = await lookOf(locals);
  const [
    beside,
    passages,
    filed,
    tags,
    doubles,
    related,
    printed,
    notes,
    leads,
    sections,
    tasks,
    passageTags,
    reading,
  ] = await Promise.all([
    besideSource(ctx, source.id),
    passagesWhere(ctx, { source_id: source.id }),
    projectsOf(ctx, source.id),
    allTags(ctx),
    source.binned ? [] : doublesOfSource(ctx, source.id),
    relatedTo(ctx, source.id),
    printedFields(locals.ctx, style, source.record.type),
    listNotes(ctx, { sourceId: source.id }),
    listLeads(ctx, { metIn: source.id }),
    sectionsOf(ctx, source.id),
    listTasks(ctx, { sourceId: source.id, withDone: true }),
    tagsOfPassages(ctx),
    readingOf(ctx, [source.id]),
  ]);
  return {
    source,
    label: shortLabel(source.record),
    ...beside,
    passages,
    filed,
    tags,
    doubles,
    related,
    printed,
    notes,
    leads,
    sections,
    tasks,
    reading: reading.get(source.id),
    passageTags: passageTags.map(({ tag }) => tag),
  };
};
