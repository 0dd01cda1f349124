import { scoped, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

/** Two sources that somebody said are different works; `a_id` sorts before `b_id`. */
export interface Apart {
  a_id: string;
  b_id: string;
  person_id: string;
  at: string;
}

const inOrder = (a: string, b: string) => {
  const [a_id, b_id] = [a, b].sort() as [string, string];
  return { a_id, b_id };
};

/** Keeps two sources apart: they never become a pair again. Whoever calls judges one of them anew. */
export async function setApart(ctx: Context, a: string, b: string): Promise<void> {
  const pair = inOrder(a, b);
  await ctx
    .db('apart')
    .insert({ ...pair, library_id: ctx.libraryId, person_id: ctx.personId, at: now() })
    .onConflict(['a_id', 'b_id'])
    .ignore();
}

/** Takes that back. */
export async function unsetApart(ctx: Context, a: string, b: string): Promise<void> {
  await scoped(ctx, 'apart').where(inOrder(a, b)).delete();
}

/** The last pairs that were kept apart, latest first, at most a hundred. */
export const apartPairs = async (ctx: Context): Promise<Apart[]> =>
  (await scoped<Apart>(ctx, 'apart').orderBy('at', 'desc').limit(100)) as Apart[];

/** The sources said to be another work than one. */
export async function apartFrom(ctx: Context, id: string): Promise<string[]> {
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

/** Pairs among some sources that were kept apart, each as its ids in order with a blank between. */
export async function apartAmong(ctx: Context, ids: string[]): Promise<Set<string>> {
  const found = new Set<string>();
  for (const part of inParts(ids)) {
    const rows = (await scoped<Apart>(ctx, 'apart').whereIn('a_id', part).select('a_id', 'b_id')) as Apart[];
    for (const { a_id, b_id } of rows) found.add(`${a_id} ${b_id}`);
  }
  return found;
}
