import type { Knex } from 'knex';
import { headline, shortLabel } from '../../core/source';
import { scoped, type Context } from '../context';
import { listKept } from '../repositories/kept';
import { leads } from '../repositories/leads';
import { notes } from '../repositories/notes';
import { openPassage, type Passage, type PassageRow } from '../repositories/passages';
import { living, openSource, type SourceRow } from '../repositories/sources';
import { findPairs } from './duplicates';
import { countsBy } from './sources';

/** How many things wait or are kept at each step of the path. */
export interface Counts {
  intake: number;
  sources: number;
  passages: number;
  duplicates: number;
  findings: number;
  leads: number;
  notes: number;
  bin: number;
}

const one = (rows: unknown) => (rows as [{ n: number }])[0].n;

/** The counts of the path, for the library or a project. */
export async function countsOf(ctx: Context, projectId?: string): Promise<Counts> {
  const filter = projectId ? { projectId } : {};
  const livePassages = living(ctx, filter)
    .join('passage', 'passage.source_id', 'source.id')
    .whereNull('passage.binned');
  const kept = (table: 'lead' | 'note') => {
    const query = scoped(ctx, table).whereNull('binned');
    if (projectId) void query.where('project_id', projectId);
    return query;
  };
  const binned = (table: string) => scoped(ctx, table).whereNotNull('binned').count({ n: '*' });
  const [
    intake,
    sources,
    findings,
    passages,
    pairs,
    openLeads,
    keptNotes,
    binnedSources,
    binnedPassages,
    binnedLeads,
    binnedNotes,
  ] = await Promise.all([
    living(ctx, { ...filter, state: 'intake' }).count({ n: '*' }),
    living(ctx, filter).count({ n: '*' }),
    living(ctx, { ...filter, state: 'findings' }).count({ n: '*' }),
    livePassages.count({ n: '*' }),
    findPairs(ctx, projectId),
    kept('lead').whereNull('ticked').count({ n: '*' }),
    kept('note').count({ n: '*' }),
    scoped(ctx, 'source').whereNotNull('binned').whereNull('merged_into').count({ n: '*' }),
    binned('passage'),
    binned('lead'),
    binned('note'),
  ]);
  return {
    intake: one(intake),
    sources: one(sources),
    findings: one(findings),
    passages: one(passages),
    duplicates: pairs.length,
    leads: one(openLeads),
    notes: one(keptNotes),
    bin: one(binnedSources) + one(binnedPassages) + one(binnedLeads) + one(binnedNotes),
  };
}

/** What lies in the bin, latest first. */
export async function binOf(ctx: Context) {
  const sources = (await scoped<SourceRow>(ctx, 'source')
    .whereNotNull('binned')
    .whereNull('merged_into')
    .orderBy('binned', 'desc')
    .limit(500)) as SourceRow[];
  const passages = (await scoped<PassageRow>(ctx, 'passage')
    .whereNotNull('binned')
    .orderBy('binned', 'desc')
    .limit(500)) as PassageRow[];
  const labels = new Map(
    (
      (await scoped<SourceRow>(ctx, 'source').whereIn(
        'id',
        passages.map((p) => p.source_id),
      )) as SourceRow[]
    ).map((r) => [r.id, shortLabel(openSource(r).record)]),
  );
  const inBin = (query: Knex.QueryBuilder) => query.whereNotNull('binned');
  const [binnedLeads, binnedNotes] = [
    await listKept(ctx, leads, inBin, 500),
    await listKept(ctx, notes, inBin, 500),
  ];
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
    notes: binnedNotes.map((n) => ({ id: n.id, text: n.body || 'a recording', binned: n.binned! })),
  };
}

/** What the Desk shows: what was last added, read and marked. */
export async function deskOf(ctx: Context, projectId?: string) {
  const filter = projectId ? { projectId } : {};
  const [added, marked] = await Promise.all([
    living(ctx, filter).orderBy('added', 'desc').limit(5) as unknown as Promise<SourceRow[]>,
    scoped<PassageRow>(ctx, 'passage')
      .whereNull('passage.binned')
      .whereIn('passage.source_id', living(ctx, filter).select('id'))
      .orderBy('added', 'desc')
      .limit(4) as unknown as Promise<PassageRow[]>,
  ]);
  const ids = marked.map((p) => p.source_id);
  const labels = new Map(
    ((await scoped<SourceRow>(ctx, 'source').whereIn('id', ids)) as SourceRow[]).map((r) => [
      r.id,
      shortLabel(openSource(r).record),
    ]),
  );
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
