import { agreeing, compare, mergeRecords, suggest, type MergeField, type Side } from '../../core/duplicates';
import { shortLabel, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { copiesOf, type CopyHead } from '../copies/repository';
import { now } from '../db/ids';
import { passagesWhere } from '../passages/repository';
import { projectsOf } from '../projects/repository';
import { getSource, getSources } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { apartPairs, setApart, unsetApart } from './apart';
import { judgeAnew } from './merging';
import { findPair, pairsInOrder, placeOf, type Pair } from './repository';

export { merge, undoableMerges, undoMerge } from './merging';

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
  await change(ctx, CHANGE, (inner) => setApart(inner, a, b));
}

/** Pairs that somebody said are different works, latest first, as far as both are there. */
export async function keptApart(
  ctx: Context,
): Promise<{ a: string; b: string; at: string; labels: [string, string] }[]> {
  const rows = await apartPairs(ctx);
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
export const notApart = (ctx: Context, a: string, b: string): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    await unsetApart(inner, a, b);
    await judgeAnew(inner, [a]);
  });
