import type { Knex } from 'knex';
import { headline, shortLabel } from '../../core/source';
import type { Context } from '../access/context';
import { listKept } from '../history/kept';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { openPassage, type Passage, type PassageRow } from '../passages/repository';
import { binnedProjects } from '../projects/repository';
import { binnedSections } from '../projects/sections';
import { tasks } from '../tasks/repository';
import { getSources, openSource } from '../sources/repository';
import { talliesOf, type Counted } from '../sources/tallies';
import { countsBy } from '../sources';
import { binnedPassages, binnedSources, latestPassages, latestSources } from './repository';

export { chartsOf, type Evidence } from './charts';

/** How many things wait or are kept at each step of the path. */
export type Counts = Record<Counted, number>;

/** The counts of the path, for the library or a project. */
export const countsOf = (ctx: Context, projectId?: string): Promise<Counts> => talliesOf(ctx, projectId);

/** What the sources of some passages are called, by id. */
const labelsOf = async (ctx: Context, passages: PassageRow[]): Promise<Map<string, string>> =>
  new Map(
    (await getSources(ctx, [...new Set(passages.map((p) => p.source_id))])).map((s) => [
      s.id,
      shortLabel(s.record),
    ]),
  );

/** How much of each kind is shown of the bin. */
const BINNED = 500;

/** What lies in the bin, latest first. */
export async function binOf(ctx: Context) {
  const [sources, passages] = [await binnedSources(ctx, BINNED), await binnedPassages(ctx, BINNED)];
  const labels = await labelsOf(ctx, passages);
  const inBin = (query: Knex.QueryBuilder) => query.whereNotNull('binned');
  const [binnedLeads, binnedNotes, binnedTasks] = [
    await listKept(ctx, leads, inBin, BINNED),
    await listKept(ctx, notes, inBin, BINNED),
    await listKept(ctx, tasks, inBin, BINNED),
  ];
  const [projects, sections] = [await binnedProjects(ctx), await binnedSections(ctx)];
  const sourceIds = sources.map((r) => r.id);
  const hanging = {
    passages: await countsBy(ctx, 'passage', sourceIds),
    copies: await countsBy(ctx, 'copy', sourceIds),
  };
  return {
    sources: sources.map((r) => ({
      id: r.id,
      passages: hanging.passages.get(r.id) ?? 0,
      copies: hanging.copies.get(r.id) ?? 0,
      headline: headline(openSource(r).record),
      type: r.type,
      binned: r.binned!,
    })),
    passages: passages.map((p) => ({
      id: p.id,
      label: labels.get(p.source_id) ?? '',
      exact: p.exact,
      gist: p.gist,
      kind: p.kind,
      binned: p.binned!,
    })),
    leads: binnedLeads.map((l) => ({ id: l.id, text: l.text, binned: l.binned! })),
    projects,
    sections,
    tasks: binnedTasks.map((t) => ({ id: t.id, text: t.text, binned: t.binned! })),
    notes: binnedNotes.map((n) => ({ id: n.id, text: n.body || 'a recording', binned: n.binned! })),
  };
}

/** What the Desk shows: what was last added, read and marked. */
export async function deskOf(ctx: Context, projectId?: string) {
  const filter = projectId ? { projectId } : {};
  const [added, marked] = await Promise.all([latestSources(ctx, filter, 5), latestPassages(ctx, filter, 4)]);
  const labels = await labelsOf(ctx, marked);
  const passages: (Passage & { label: string })[] = marked.map((row) => ({
    ...openPassage(row),
    label: labels.get(row.source_id) ?? '',
  }));
  return {
    added: added.map((r) => ({
      id: r.id,
      headline: headline(openSource(r).record),
      type: r.type,
      added: r.added,
      checked: r.checked,
    })),
    passages,
  };
}
