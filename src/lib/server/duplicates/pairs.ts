import type { Judgement } from '../../core/duplicates';
import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';

/** A pair that looks like one work. `a` is the one captured first. */
export interface Pair {
  a: string;
  b: string;
  verdict: 'sure' | 'decide';
  score: number;
  reasons: string[];
}

interface Row {
  a_id: string;
  b_id: string;
  rank: number;
  score: number;
  reasons: string;
}

const opened = ({ a_id, b_id, rank, score, reasons }: Row): Pair => ({
  a: a_id,
  b: b_id,
  verdict: rank === 0 ? 'sure' : 'decide',
  score,
  reasons: JSON.parse(reasons) as string[],
});

/** Keeps that two sources look like one work. */
export const keepPair = (ctx: Context, x: string, y: string, { verdict, score, reasons }: Judgement) => {
  const [a_id, b_id] = [x, y].sort() as [string, string];
  return ctx
    .db('likeness')
    .insert({
      library_id: ctx.libraryId,
      a_id,
      b_id,
      rank: verdict === 'sure' ? 0 : 1,
      score,
      reasons: JSON.stringify(reasons),
    })
    .onConflict(['a_id', 'b_id'])
    .merge();
};

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

/** Pairs of the library in their order, those behind one, at most `most`. */
export async function pairsAfter(ctx: Context, after: Pair | undefined, most: number): Promise<Pair[]> {
  const rows = (await scoped<Row>(ctx, 'likeness')
    .whereRaw('(a_id, b_id) > (?, ?)', [after?.a ?? '', after?.b ?? ''])
    .orderBy(['a_id', 'b_id'])
    .limit(most)) as Row[];
  return rows.map(opened);
}

/** Takes a source out of all pairs; gives those it was in one with. */
export async function forgetPairs(ctx: Context, id: string): Promise<string[]> {
  const others = (await pairsAmong(ctx, [id])).map((pair) => (pair.a === id ? pair.b : pair.a));
  // An index for each: one question of both is answered by going through all pairs.
  if (others.length > 0)
    for (const side of ['a_id', 'b_id']) await scoped(ctx, 'likeness').where(side, id).delete();
  return others;
}

/** Takes one pair out. */
export const forgetPair = async (ctx: Context, a_id: string, b_id: string): Promise<void> =>
  void (await scoped(ctx, 'likeness').where({ a_id, b_id }).delete());
