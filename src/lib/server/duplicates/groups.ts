import { groupsOf, judgePair, type JudgedPair } from '../../core/duplicates';
import { shortLabel } from '../../core/source';
import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';
import { getSources } from '../sources/repository';
import { apartAmong } from './apart';
import { commonnessIn } from './lookup';
import { signatureFor } from './signatures';
import { pairsAmong, type Pair } from './pairs';

/** Sources that look like one work. Its id is that of the first of them. */
export interface SourceGroup {
  id: string;
  verdict: 'sure' | 'decide';
  score: number;
  size: number;
  reasons: string[];
  label: string;
}

interface Row {
  id: string;
  rank: number;
  score: number;
  size: number;
  reasons: string;
  label: string;
}

const opened = ({ rank, reasons, ...row }: Row): SourceGroup => ({
  id: row.id,
  score: row.score,
  size: row.size,
  label: row.label,
  verdict: rank === 0 ? 'sure' : 'decide',
  reasons: JSON.parse(reasons) as string[],
});

/** How many sources are looked at for one group at most; so many are like one another in nothing but test data. */
const MOST_TOGETHER = 400;

/** Makes the groups anew that some sources are in or can be in, going by the pairs as they are kept. */
export async function regroup(ctx: Context, ids: string[]): Promise<void> {
  const together = new Set(ids);
  const pairs = new Map<string, Pair>();
  for (let edge = ids; edge.length > 0 && together.size < MOST_TOGETHER;) {
    const found = await pairsAmong(ctx, edge);
    edge = [];
    for (const pair of found) {
      pairs.set(`${pair.a} ${pair.b}`, pair);
      for (const id of [pair.a, pair.b])
        if (!together.has(id)) {
          together.add(id);
          edge.push(id);
        }
    }
  }
  await ungroup(ctx, [...together]);
  if (pairs.size === 0) return;
  const sources = new Map((await getSources(ctx, [...together])).map((s) => [s.id, s]));
  const judge = await judgeAmong(ctx, [...pairs.values()], [...sources.values()]);
  for (const { ids: members, verdict, score, reasons } of groupsOf(
    [...pairs.values()].filter((p) => sources.has(p.a) && sources.has(p.b)) as JudgedPair[],
    judge,
  )) {
    const [first] = members;
    await ctx.db('likeness_group').insert({
      id: first,
      library_id: ctx.libraryId,
      rank: verdict === 'sure' ? 0 : 1,
      score,
      size: members.length,
      reasons: JSON.stringify(reasons),
      label: shortLabel(sources.get(first!)!.record),
    });
    await ctx
      .db('likeness_member')
      .insert(members.map((source_id) => ({ source_id, library_id: ctx.libraryId, group_id: first })));
  }
}

/** How any two of some sources are judged, those said to be different works as such. Two alone have been judged already. */
async function judgeAmong(ctx: Context, pairs: Pair[], sources: Awaited<ReturnType<typeof getSources>>) {
  const none = () => ({ verdict: 'different' as const, score: 0, reasons: [] });
  if (pairs.length === 1) return none;
  const signatures = new Map(sources.map((s) => [s.id, signatureFor(s)]));
  const common = await commonnessIn(ctx, [...signatures.values()]);
  const apart = await apartAmong(ctx, [...signatures.keys()]);
  return (a: string, b: string) =>
    apart.has(`${a} ${b}`) || !signatures.has(a) || !signatures.has(b)
      ? none()
      : judgePair(signatures.get(a)!, signatures.get(b)!, common);
}

async function ungroup(ctx: Context, ids: string[]): Promise<void> {
  const groups = new Set<string>();
  for (const part of inParts(ids)) {
    const rows = (await scoped(ctx, 'likeness_member').whereIn('source_id', part).select('group_id')) as {
      group_id: string;
    }[];
    for (const row of rows) groups.add(row.group_id);
  }
  for (const part of inParts([...groups])) {
    await scoped(ctx, 'likeness_member').whereIn('group_id', part).delete();
    await scoped(ctx, 'likeness_group').whereIn('id', part).delete();
  }
}

/** Ids of the sources of a group, first captured first. */
export async function membersOf(ctx: Context, groupId: string): Promise<string[]> {
  const rows = (await scoped(ctx, 'likeness_member').where({ group_id: groupId }).select('source_id')) as {
    source_id: string;
  }[];
  return rows.map((row) => row.source_id).sort();
}

/** The group a source is in. */
export async function groupWith(ctx: Context, sourceId: string): Promise<SourceGroup | undefined> {
  const member = (await scoped(ctx, 'likeness_member').where({ source_id: sourceId }).first('group_id')) as
    { group_id: string } | undefined;
  const row =
    member && ((await scoped<Row>(ctx, 'likeness_group').where({ id: member.group_id }).first()) as Row);
  return row && opened(row);
}

/** The groups, or those that one source of a project is in. */
function within(ctx: Context, projectId?: string) {
  const query = scoped<Row>(ctx, 'likeness_group');
  if (projectId)
    void query.whereIn(
      'id',
      ctx
        .db('filing')
        .join('likeness_member', 'likeness_member.source_id', 'filing.source_id')
        .where({ project_id: projectId })
        .select('group_id'),
    );
  return query;
}

/** Groups in the order they are shown: sure ones first, then by label. */
export async function groupsInOrder(
  ctx: Context,
  {
    projectId,
    offset = 0,
    limit,
    sure,
  }: { projectId?: string | undefined; offset?: number; limit: number; sure?: boolean },
): Promise<SourceGroup[]> {
  const query = within(ctx, projectId);
  if (sure) void query.where({ rank: 0 });
  const rows = (await query
    .orderBy(['rank', 'label', 'id'])
    .offset(offset)
    .limit(limit)
    .select('id', 'rank', 'score', 'size', 'reasons', 'label')) as Row[];
  return rows.map(opened);
}

/** How many groups are sure ones. */
export async function sureOnes(ctx: Context, projectId?: string): Promise<number> {
  const [{ n }] = (await within(ctx, projectId).where({ rank: 0 }).count({ n: '*' })) as unknown as [
    { n: number },
  ];
  return n;
}

/** How many groups stand before one, in the order they are shown. */
export async function placeOf(ctx: Context, group: SourceGroup, projectId?: string): Promise<number> {
  const [{ n }] = (await within(ctx, projectId)
    .whereRaw('(rank, label, id) < (?, ?, ?)', [group.verdict === 'sure' ? 0 : 1, group.label, group.id])
    .count({ n: '*' })) as unknown as [{ n: number }];
  return n;
}

/**
 * The pairs that some sources are in, as far as both are in one group. A source that is a little like one of a group and
 * not like the others is in none: it is asked about when the group has been decided.
 */
export async function pairsInGroups(ctx: Context, ids: string[]): Promise<Pair[]> {
  const pairs = await pairsAmong(ctx, ids);
  const groupOf = new Map<string, string>();
  for (const part of inParts([...new Set(pairs.flatMap((p) => [p.a, p.b]))])) {
    const rows = (await scoped(ctx, 'likeness_member')
      .whereIn('source_id', part)
      .select('source_id', 'group_id')) as { source_id: string; group_id: string }[];
    for (const row of rows) groupOf.set(row.source_id, row.group_id);
  }
  return pairs.filter((p) => groupOf.has(p.a) && groupOf.get(p.a) === groupOf.get(p.b));
}

/** Where each of some sources is compared with another that looks like the same work, by id; the surest of them. */
export async function twiceAmong(ctx: Context, ids: string[]): Promise<Map<string, Pair>> {
  const wanted = new Set(ids);
  const found = new Map<string, Pair>();
  for (const pair of await pairsInGroups(ctx, ids))
    for (const id of [pair.a, pair.b])
      if (wanted.has(id) && (found.get(id)?.score ?? 0) < pair.score) found.set(id, pair);
  return found;
}
