import { change } from '../access/change';
import { agreeing, compare, mergeRecords, suggest, type MergeField, type Side } from '../../core/duplicates';
import { shortLabel, type SourceRecord } from '../../core/source';
import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';
import { changedMeanwhile, notHere, Refusal } from '../access/refusal';
import { copiesOf, type CopyHead } from '../copies/repository';
import { findPair, judge, pairsInOrder, placeOf, type Pair } from './repository';
import { passagesWhere, type PassageRow } from '../passages/repository';
import { projectsOf } from '../projects/repository';
import {
  columnsOf,
  getSource,
  getSources,
  openSource,
  updateSource,
  writeBeside,
  type SourceRow,
} from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { noteRevision } from '../history/repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'duplicates'] } as const;

/** How many pairs are shown at once; beside them stands how many there are. */
export const PAIRS_SHOWN = 100;

/**
 * The suspected pairs of the library (or of a project: both or one of them in it), surest first, with the one asked for
 * among them, and how many there are in all. `at` is the place of the one to be shown, counted from the first of all.
 */
export async function pairsAround(
  ctx: Context,
  projectId: string | undefined,
  wanted: { a: string; b: string } | undefined,
): Promise<{ pairs: Pair[]; first: number; at: number; total: number }> {
  const { duplicates: total } = await talliesOf(ctx, projectId);
  const pair = wanted && (await findPair(ctx, wanted.a, wanted.b));
  const place = pair ? await placeOf(ctx, pair, projectId) : 0;
  const first = Math.max(0, Math.min(place - 2, total - PAIRS_SHOWN));
  const pairs = await pairsInOrder(ctx, { projectId, offset: first, limit: PAIRS_SHOWN });
  const at = pairs.findIndex((p) => p.a === pair?.a && p.b === pair.b);
  return { pairs, first, at: at === -1 ? 0 : at, total };
}

/** One side of a comparison: the source and what hangs on it. */
export interface PairSide {
  id: string;
  revision: number;
  record: SourceRecord;
  label: string;
  citekey: string;
  added: string;
  address: string | null;
  passages: number;
  copies: CopyHead[];
  projects: number;
}

async function sideOf(ctx: Context, id: string): Promise<PairSide> {
  const source = await getSource(ctx, id);
  const [passages, copies, projects] = await Promise.all([
    passagesWhere(ctx, { source_id: id }),
    copiesOf(ctx, id),
    projectsOf(ctx, id),
  ]);
  return {
    id,
    revision: source.revision,
    record: source.record,
    label: shortLabel(source.record),
    citekey: source.citekey,
    added: source.added,
    address: copies[0]?.address ?? source.record.URL ?? null,
    passages: passages.length,
    copies,
    projects: projects.length,
  };
}

/** A pair laid out for deciding. */
export async function comparePair(ctx: Context, a: string, b: string) {
  const [left, right] = await Promise.all([sideOf(ctx, a), sideOf(ctx, b)]);
  return {
    a: left,
    b: right,
    judgement: compare(left.record, right.record),
    suggestions: suggest(left.record, right.record),
    same: agreeing(left.record, right.record),
  };
}

export type Picks = Partial<Record<MergeField, Side>>;

/** The record a merge would give, for showing how it prints. */
export async function mergedRecord(ctx: Context, a: string, b: string, picks: Picks): Promise<SourceRecord> {
  const [left, right] = await Promise.all([getSource(ctx, a), getSource(ctx, b)]);
  return mergeRecords(left.record, right.record, picks, now());
}

/** Says for good that two sources are different works. */
export async function keepApart(ctx: Context, a: string, b: string): Promise<void> {
  await Promise.all([getSource(ctx, a), getSource(ctx, b)]);
  const [a_id, b_id] = [a, b].sort() as [string, string];
  await change(ctx, CHANGE, async (inner) => {
    await inner
      .db('apart')
      .insert({ library_id: ctx.libraryId, a_id, b_id, person_id: ctx.personId, at: now() })
      .onConflict(['a_id', 'b_id'])
      .ignore();
    await scoped(inner, 'likeness').where({ a_id, b_id }).delete();
  });
}

/** Pairs that somebody said are different works, latest first, as far as both are there. */
export async function keptApart(
  ctx: Context,
): Promise<{ a: string; b: string; at: string; labels: [string, string] }[]> {
  const rows = (await scoped<{ a_id: string; b_id: string; at: string }>(ctx, 'apart')
    .orderBy('at', 'desc')
    .limit(100)
    .select('a_id', 'b_id', 'at')) as { a_id: string; b_id: string; at: string }[];
  const sources = new Map(
    (await getSources(ctx, [...new Set(rows.flatMap((r) => [r.a_id, r.b_id]))]))
      .filter((s) => !s.binned && !s.mergedInto)
      .map((s) => [s.id, s]),
  );
  const called = (id: string) => {
    const { record } = sources.get(id)!;
    return [shortLabel(record), record.title].filter(Boolean).join(', ');
  };
  return rows
    .filter((r) => sources.has(r.a_id) && sources.has(r.b_id))
    .map(({ a_id, b_id, at }) => ({ a: a_id, b: b_id, at, labels: [called(a_id), called(b_id)] }));
}

/** Takes back that two sources are different works. */
export async function notApart(ctx: Context, a: string, b: string): Promise<void> {
  const [a_id, b_id] = [a, b].sort() as [string, string];
  await change(ctx, CHANGE, async (inner) => {
    await scoped(inner, 'apart').where({ a_id, b_id }).delete();
    await judgeAnew(inner, [a]);
  });
}

/** Judges sources again, when what was said of them changed and not they themselves. */
async function judgeAnew(ctx: Context, ids: string[]): Promise<void> {
  for (const source of await getSources(ctx, ids))
    await judge(ctx, source.id, source.binned || source.mergedInto ? undefined : source);
}

/** Everything a merge changes, as it was before. */
interface Before {
  survivor: SourceRow;
  absorbed: SourceRow;
  passages: { id: string; source_id: string }[];
  copies: string[];
  filings: { project_id: string; source_id: string; filed: string }[];
  aliases: { alias: string; source_id: string }[];
  aparts: { a_id: string; b_id: string; person_id: string; at: string }[];
  mergedRevision: number;
  /** Notes and leads that pointed at the absorbed source; merges of before there were any have none. */
  pointing?: { table: 'note' | 'lead'; column: string; id: string }[];
  placements?: { section_id: string; position: number; source_id: string }[];
}

/** Columns of other tables that point at a source and go over with it. */
const POINTING = [
  ['note', 'source_id'],
  ['lead', 'met_in'],
  ['lead', 'found_id'],
] as const;

/**
 * Makes one source of two: `a` survives with the record made from `picks`; copies, passages, filings, aliases and
 * "kept apart" marks of `b` go over to it. The absorbed source stays, marked as merged; its id and citekey lead to the
 * survivor. One transaction. `bases` are the revisions the choice was made on. Gives the id for undoing.
 */
export async function merge(
  ctx: Context,
  a: string,
  b: string,
  picks: Picks,
  bases: [number, number],
): Promise<string> {
  if (a === b) throw new Refusal(422, 'A source cannot be merged with itself.');
  const id = newId();
  await change(ctx, CHANGE, async (inner) => {
    const rowOf = async (sid: string) => {
      const row = (await scoped<SourceRow>(inner, 'source').where({ id: sid }).first()) as
        SourceRow | undefined;
      if (!row) throw notHere('source');
      if (row.binned || row.merged_into) throw changedMeanwhile('source');
      return row;
    };
    const [survivor, absorbed] = [await rowOf(a), await rowOf(b)];
    if (survivor.revision !== bases[0] || absorbed.revision !== bases[1]) throw changedMeanwhile('source');
    const passages = (await scoped<PassageRow>(inner, 'passage')
      .where({ source_id: b })
      .select('id', 'source_id')) as { id: string; source_id: string }[];
    const copies = (await copiesOf(inner, b)).map((c) => c.id);
    const filings = (await inner.db('filing').whereIn('source_id', [a, b])) as Before['filings'];
    const aliases = (await scoped<Before['aliases'][number]>(inner, 'alias')
      .whereIn('source_id', [a, b])
      .select('alias', 'source_id')) as Before['aliases'];
    const aparts = (await scoped<Before['aparts'][number]>(inner, 'apart')
      .where((q) => void q.whereIn('a_id', [a, b]).orWhereIn('b_id', [a, b]))
      .select('a_id', 'b_id', 'person_id', 'at')) as Before['aparts'];

    const pointing: NonNullable<Before['pointing']> = [];
    for (const [table, column] of POINTING) {
      const rows = (await scoped<{ id: string }>(inner, table).where(column, b).select('id')) as {
        id: string;
      }[];
      pointing.push(...rows.map(({ id }) => ({ table, column, id })));
    }
    const placements = (await inner.db('placement').whereIn('source_id', [a, b])) as NonNullable<
      Before['placements']
    >;

    const record = mergeRecords(openSource(survivor).record, openSource(absorbed).record, picks, now());
    const { source } = await updateSource(
      inner,
      a,
      survivor.revision,
      { record, checked: survivor.checked ?? absorbed.checked },
      `merged with ${absorbed.citekey}`,
    );
    await scoped(inner, 'passage').where({ source_id: b }).update({ source_id: a });
    await scoped(inner, 'copy').where({ source_id: b }).update({ source_id: a });
    for (const f of filings.filter((f) => f.source_id === b))
      await inner
        .db('filing')
        .insert({ ...f, source_id: a })
        .onConflict(['project_id', 'source_id'])
        .ignore();
    await inner.db('filing').where({ source_id: b }).delete();
    for (const [table, column] of POINTING)
      await scoped(inner, table)
        .where(column, b)
        .update({ [column]: a });
    const placed = new Set(placements.filter((p) => p.source_id === a).map((p) => p.section_id));
    for (const { section_id } of placements.filter((p) => p.source_id === b)) {
      const row = inner.db('placement').where({ section_id, source_id: b });
      await (placed.has(section_id) ? row.delete() : row.update({ source_id: a }));
    }
    await scoped(inner, 'alias').where({ source_id: b }).update({ source_id: a });
    for (const alias of [absorbed.id, absorbed.citekey])
      await inner
        .db('alias')
        .insert({ library_id: ctx.libraryId, alias, source_id: a })
        .onConflict(['library_id', 'alias'])
        .merge();
    for (const apart of aparts) {
      const [x, y] = [apart.a_id, apart.b_id].map((s) => (s === b ? a : s)).sort() as [string, string];
      await scoped(inner, 'apart').where({ a_id: apart.a_id, b_id: apart.b_id }).delete();
      if (x !== y)
        await inner
          .db('apart')
          .insert({ ...apart, library_id: ctx.libraryId, a_id: x, b_id: y })
          .onConflict(['a_id', 'b_id'])
          .ignore();
    }
    await scoped<SourceRow>(inner, 'source').where({ id: b }).update({ merged_into: a });
    await writeBeside(inner, b, { ...openSource(absorbed), binned: 'merged' });
    // What was kept apart from either is kept apart from the survivor.
    await judgeAnew(inner, [a]);
    const before: Before = {
      survivor,
      absorbed,
      passages,
      copies,
      filings,
      aliases,
      aparts,
      mergedRevision: source.revision,
      pointing,
      placements,
    };
    await inner.db('merge').insert({
      id,
      library_id: ctx.libraryId,
      survivor_id: a,
      absorbed_id: b,
      person_id: ctx.personId,
      at: now(),
      before: JSON.stringify(before),
    });
  });
  return id;
}

interface MergeRow {
  id: string;
  survivor_id: string;
  absorbed_id: string;
  at: string;
  undone: string | null;
  before: string;
}

/** Merges that can be undone, newest first. */
export async function undoableMerges(
  ctx: Context,
): Promise<{ id: string; at: string; label: string; citekey: string }[]> {
  const rows = (await scoped<MergeRow>(ctx, 'merge')
    .whereNull('undone')
    .orderBy('at', 'desc')
    .limit(50)) as MergeRow[];
  return rows.map((row) => {
    const { survivor, absorbed } = JSON.parse(row.before) as Before;
    return {
      id: row.id,
      at: row.at,
      label: shortLabel(openSource(survivor).record),
      citekey: absorbed.citekey,
    };
  });
}

/**
 * Undoes a merge: both sources, their passages, copies, filings, aliases and "kept apart" marks are as they were.
 * The survivor's record is restored as a new revision, so that nothing printed or cached of the merged one is taken
 * for it; passages kept on the survivor since stay there. Refuses when the survivor was edited or merged again since.
 */
export async function undoMerge(ctx: Context, id: string): Promise<void> {
  await change(ctx, CHANGE, async (inner) => {
    const row = (await scoped<MergeRow>(inner, 'merge').where({ id }).first()) as MergeRow | undefined;
    if (!row) throw notHere('merge');
    if (row.undone) throw new Refusal(409, 'This merge was already undone.');
    const before = JSON.parse(row.before) as Before;
    const { survivor, absorbed } = before;
    const present = await getSource(inner, survivor.id);
    if (present.revision !== before.mergedRevision || present.mergedInto)
      throw new Refusal(
        409,
        'The merged source was changed since. Undoing the merge would lose that change: first take it back in the source’s history, then undo the merge.',
      );
    const was = openSource(survivor);
    const restored = { record: was.record, citekey: was.citekey, checked: was.checked, binned: was.binned };
    const revision = present.revision + 1;
    await scoped<SourceRow>(inner, 'source')
      .where({ id: survivor.id })
      .update({
        ...columnsOf(was.record),
        citekey: was.citekey,
        checked: was.checked,
        binned: was.binned,
        revision,
      });
    const { record, citekey, checked, binned } = present;
    await noteRevision(
      inner,
      'source',
      survivor.id,
      revision,
      { record, citekey, checked, binned },
      restored,
      `merge with ${absorbed.citekey} undone`,
    );
    await scoped<SourceRow>(inner, 'source').where({ id: absorbed.id }).update({ merged_into: null });
    await writeBeside(inner, survivor.id, was);
    await writeBeside(inner, absorbed.id, openSource(absorbed));
    await scoped(inner, 'passage')
      .whereIn(
        'id',
        before.passages.map((p) => p.id),
      )
      .update({ source_id: absorbed.id });
    await scoped(inner, 'copy').whereIn('id', before.copies).update({ source_id: absorbed.id });
    const pair = [survivor.id, absorbed.id];
    await inner.db('filing').whereIn('source_id', pair).delete();
    if (before.filings.length) await inner.db('filing').insert(before.filings);
    for (const { table, column, id: pointer } of before.pointing ?? [])
      await scoped(inner, table)
        .where({ id: pointer })
        .update({ [column]: absorbed.id });
    if (before.placements) {
      await inner.db('placement').whereIn('source_id', pair).delete();
      if (before.placements.length) await inner.db('placement').insert(before.placements);
    }
    await scoped(inner, 'alias').whereIn('source_id', pair).delete();
    if (before.aliases.length)
      await inner.db('alias').insert(before.aliases.map((r) => ({ ...r, library_id: ctx.libraryId })));
    await scoped(inner, 'apart')
      .where((q) => void q.whereIn('a_id', pair).orWhereIn('b_id', pair))
      .delete();
    if (before.aparts.length)
      await inner.db('apart').insert(before.aparts.map((r) => ({ ...r, library_id: ctx.libraryId })));
    await judgeAnew(inner, pair);
    await scoped<MergeRow>(inner, 'merge').where({ id }).update({ undone: now() });
  });
}
