import { scoped, type Context } from '../access/context';
import { now } from '../db/ids';

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

/** Keeps two sources apart: they are no pair any more and never become one. */
export async function setApart(ctx: Context, a: string, b: string): Promise<void> {
  const pair = inOrder(a, b);
  await ctx
    .db('apart')
    .insert({ ...pair, library_id: ctx.libraryId, person_id: ctx.personId, at: now() })
    .onConflict(['a_id', 'b_id'])
    .ignore();
  await scoped(ctx, 'likeness').where(pair).delete();
}

/** Takes that back. */
export async function unsetApart(ctx: Context, a: string, b: string): Promise<void> {
  await scoped(ctx, 'apart').where(inOrder(a, b)).delete();
}

/** The last pairs that were kept apart, latest first, at most a hundred. */
export const apartPairs = async (ctx: Context): Promise<Apart[]> =>
  (await scoped<Apart>(ctx, 'apart').orderBy('at', 'desc').limit(100)) as Apart[];
