import type { PageServerLoad } from './$types';
import { shortLabel } from '$lib/core/source';
import { copiesOf, getCopy, placeIn } from '$lib/server/copies';
import { itemsOf, linksOf, listPassages, passagesWhere, tagsOfPassages } from '$lib/server/passages';
import { listSections } from '$lib/server/projects';
import { threadsOf } from '$lib/server/replies';
import { listTasks } from '$lib/server/tasks';
import { getSource } from '$lib/server/sources';
import { orRefuse } from '../../answer';

/** How many passages, the latest, one is offered to link with. */
const OTHERS = 200;

export const load: PageServerLoad = async ({ params, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:tasks', 'retexa:projects');
  const { ctx, projectId } = locals;
  const { text: _text, ...copy } = await orRefuse(getCopy(ctx, params.id));
  const [source, copies, found, tasks, tags, sections, others] = await Promise.all([
    getSource(ctx, copy.source_id),
    copiesOf(ctx, copy.source_id),
    passagesWhere(ctx, { copy_id: copy.id }),
    listTasks(ctx, { sourceId: copy.source_id, withDone: true }),
    tagsOfPassages(ctx),
    listSections(ctx),
    listPassages(ctx, projectId ? { projectId } : {}, OTHERS),
  ]);
  const passages = await itemsOf(ctx, found);
  const ids = found.map((p) => p.id);
  const [links, threads] = [await linksOf(ctx, ids), await threadsOf(ctx, ids)];
  return {
    copy,
    copies,
    passages,
    tasks,
    place: await placeIn(ctx, copy.id),
    tags: tags.map(({ tag }) => tag),
    sections: sections.filter((s) => !projectId || s.projectId === projectId),
    links: Object.fromEntries(links),
    threads: Object.fromEntries(threads),
    others: others.items,
    source: { id: source.id, title: source.record.title ?? '', label: shortLabel(source.record) },
  };
};
