import { compare } from '../../core/duplicates';
import { derive, shortLabel, type SourceRecord } from '../../core/source';
import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';
import { sourcesWithKeys, type Source } from '../sources/repository';

/** A pair that looks like one work. `a` is the one captured first. */
export interface Pair {
  a: string;
  b: string;
  verdict: 'same' | 'likely';
  reasons: string[];
  label: string;
}

interface Row {
  a_id: string;
  b_id: string;
  rank: number;
  reasons: string;
  label: string;
}

const opened = ({ a_id, b_id, rank, reasons, label }: Row): Pair => ({
  a: a_id,
  b: b_id,
  verdict: rank === 0 ? 'same' : 'likely',
  reasons: JSON.parse(reasons) as string[],
  label,
});

/** The living sources a record shares a key with, with the judgement of each that looks like one work. */
export async function judged(ctx: Context, record: SourceRecord) {
  const { titleKey, creatorKey, year, doi, isbn, addressKey } = derive(record);
  const found = await sourcesWithKeys(ctx, {
    ...(doi ? { doi } : {}),
    ...(addressKey ? { address_key: addressKey } : {}),
    ...(titleKey ? { title_key: titleKey, isbn, creator_key: creatorKey, year } : {}),
  });
  return found
    .map((source) => ({ source, judgement: compare(record, source.record) }))
    .filter(({ judgement }) => judgement.verdict !== 'different');
}

/** Takes a source out of all pairs. */
export async function forgetLikeness(ctx: Context, id: string): Promise<void> {
  // An index for each: one question of both is answered by going through all pairs.
  for (const side of ['a_id', 'b_id']) await scoped(ctx, 'likeness').where(side, id).delete();
}

/**
 * Judges a source against those it shares a key with, keeps the pairs that look like one work, those said to be different
 * works left out, and gives them. Call in the transaction that changed it, with nothing when it is not living any more;
 * `fresh` for one that was not there before.
 */
export async function judge(
  ctx: Context,
  id: string,
  source: Pick<Source, 'record'> | undefined,
  fresh = false,
): Promise<Awaited<ReturnType<typeof judged>>> {
  if (!fresh) await forgetLikeness(ctx, id);
  if (!source) return [];
  const alike = (await judged(ctx, source.record)).filter((j) => j.source.id !== id);
  if (alike.length === 0) return [];
  const apart = new Set(fresh ? [] : await apartFrom(ctx, id));
  for (const { source: other, judgement } of alike) {
    if (apart.has(other.id)) continue;
    // Ids grow with time: the smaller is the one captured first.
    const first = id < other.id ? { id, record: source.record } : other;
    const [a_id, b_id] = [id, other.id].sort() as [string, string];
    await ctx.db('likeness').insert({
      library_id: ctx.libraryId,
      a_id,
      b_id,
      rank: judgement.verdict === 'sure' ? 0 : 1,
      reasons: JSON.stringify(judgement.reasons),
      label: shortLabel(first.record),
    });
  }
  return alike.filter(({ source: other }) => !apart.has(other.id));
}

/** The sources said to be another work than one. */
async function apartFrom(ctx: Context, id: string): Promise<string[]> {
  const others: string[] = [];
  for (const [side, other] of [
    ['a_id', 'b_id'],
    ['b_id', 'a_id'],
  ] as const) {
    const rows = (await scoped<Record<string, string>>(ctx, 'apart')
      .where(side, id)
      .select({ other })) as unknown as { other: string }[];
    others.push(...rows.map((r) => r.other));
  }
  return others;
}

/** Pairs in the order they are shown: surest first, then by label. Of a project: both or one of them in it. */
export async function pairsInOrder(
  ctx: Context,
  { projectId, offset = 0, limit }: { projectId?: string | undefined; offset?: number; limit: number },
): Promise<Pair[]> {
  const query = scoped<Row>(ctx, 'likeness');
  if (projectId) {
    const filed = ctx.db('filing').where({ project_id: projectId }).select('source_id');
    void query.where((q) => void q.whereIn('a_id', filed).orWhereIn('b_id', filed.clone()));
  }
  const rows = (await query
    .orderBy(['rank', 'label', 'a_id', 'b_id'])
    .offset(offset)
    .limit(limit)
    .select('a_id', 'b_id', 'rank', 'reasons', 'label')) as Row[];
  return rows.map(opened);
}

/** The pairs that some sources are in. */
export async function pairsAmong(ctx: Context, ids: string[]): Promise<Pair[]> {
  const found = new Map<string, Pair>();
  for (const part of inParts(ids))
    for (const side of ['a_id', 'b_id']) {
      const rows = (await scoped<Row>(ctx, 'likeness').whereIn(side, part)) as Row[];
      for (const row of rows) found.set(`${row.a_id} ${row.b_id}`, opened(row));
    }
  return [...found.values()];
}

/** Where each of some sources is compared with another that looks like the same work, by id. */
export async function twiceAmong(ctx: Context, ids: string[]): Promise<Map<string, Pair>> {
  const wanted = new Set(ids);
  const found = new Map<string, Pair>();
  for (const pair of await pairsAmong(ctx, ids))
    for (const id of [pair.a, pair.b]) if (wanted.has(id) && !found.has(id)) found.set(id, pair);
  return found;
}

/** One pair, by its sources in either order. */
export async function findPair(ctx: Context, x: string, y: string): Promise<Pair | undefined> {
  const [a_id, b_id] = [x, y].sort();
  const row = (await scoped<Row>(ctx, 'likeness').where({ a_id, b_id }).first()) as Row | undefined;
  return row && opened(row);
}

/** How many pairs stand before one, in the order they are shown. */
export async function placeOf(ctx: Context, pair: Pair, projectId?: string): Promise<number> {
  const query = scoped<Row>(ctx, 'likeness').whereRaw('(rank, label, a_id, b_id) < (?, ?, ?, ?)', [
    pair.verdict === 'same' ? 0 : 1,
    pair.label,
    pair.a,
    pair.b,
  ]);
  if (projectId) {
    const filed = ctx.db('filing').where({ project_id: projectId }).select('source_id');
    void query.where((q) => void q.whereIn('a_id', filed).orWhereIn('b_id', filed.clone()));
  }
  const [{ n }] = (await query.count({ n: '*' })) as unknown as [{ n: number }];
  return n;
}
