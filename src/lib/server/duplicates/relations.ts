import { RELATIONS, type Relation } from '../../core/duplicates';
import { scoped, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

/** Two works that belong together; `a` was captured first. */
export interface Related {
  a: string;
  b: string;
  kind: Relation;
  /** Somebody said so; otherwise it was judged by what the records say. */
  said: boolean;
}

interface Row {
  a_id: string;
  b_id: string;
  kind: Relation;
  person_id: string | null;
  dismissed: string | null;
}

const inOrder = (x: string, y: string) => {
  const [a_id, b_id] = [x, y].sort() as [string, string];
  return { a_id, b_id };
};

/** Keeps that two works belong together, as it was judged; what a person said of them stays. */
export const keepRelation = async (ctx: Context, x: string, y: string, kind: Relation): Promise<void> =>
  void (await ctx
    .db('relation')
    .insert({ ...inOrder(x, y), library_id: ctx.libraryId, kind, at: now() })
    .onConflict(['a_id', 'b_id'])
    .ignore());

/** Forgets what was judged of a work; what a person said stays. */
export async function forgetRelations(ctx: Context, id: string): Promise<void> {
  for (const side of ['a_id', 'b_id'])
    await scoped<Row>(ctx, 'relation').where(side, id).whereNull('person_id').whereNull('dismissed').delete();
}

/** What was judged of the library's works, in the order of their ids, behind one pair of them, at most `most`. */
export async function judgedAfter(
  ctx: Context,
  after: { a: string; b: string } | undefined,
  most: number,
): Promise<{ a: string; b: string; kind: Relation }[]> {
  return (await scoped<Row>(ctx, 'relation')
    .whereRaw('(a_id, b_id) > (?, ?)', [after?.a ?? '', after?.b ?? ''])
    .whereNull('person_id')
    .whereNull('dismissed')
    .orderBy(['a_id', 'b_id'])
    .limit(most)
    .select('a_id as a', 'b_id as b', 'kind')) as { a: string; b: string; kind: Relation }[];
}

/** Forgets what was judged of two works; what a person said stays. */
export const forgetJudged = async (ctx: Context, x: string, y: string): Promise<void> =>
  void (await scoped<Row>(ctx, 'relation')
    .where(inOrder(x, y))
    .whereNull('person_id')
    .whereNull('dismissed')
    .delete());

/** Forgets what was said of two works. */
export const forgetRelation = async (ctx: Context, x: string, y: string): Promise<void> =>
  void (await scoped<Row>(ctx, 'relation').where(inOrder(x, y)).delete());

/** Says that two works belong together. */
export const sayRelated = async (ctx: Context, x: string, y: string, kind: Relation): Promise<void> =>
  void (await ctx
    .db('relation')
    .insert({
      ...inOrder(x, y),
      library_id: ctx.libraryId,
      kind,
      person_id: ctx.personId,
      at: now(),
      dismissed: null,
    })
    .onConflict(['a_id', 'b_id'])
    .merge());

/** Says that two works do not belong together; it is not judged again. */
export const sayUnrelated = async (ctx: Context, x: string, y: string): Promise<void> =>
  void (await scoped<Row>(ctx, 'relation').where(inOrder(x, y)).update({ dismissed: now() }));

/** Takes that back. */
export const sayRelatedAgain = async (ctx: Context, x: string, y: string): Promise<void> =>
  void (await scoped<Row>(ctx, 'relation').where(inOrder(x, y)).update({ dismissed: null }));

/** What belongs together with some works. */
export async function relationsOf(ctx: Context, ids: string[]): Promise<Related[]> {
  const found = new Map<string, Related>();
  for (const part of inParts(ids))
    for (const side of ['a_id', 'b_id']) {
      const rows = (await scoped<Row>(ctx, 'relation')
        .whereIn(side, part)
        .whereNull('dismissed')
        .whereIn('kind', RELATIONS)) as Row[];
      for (const { a_id: a, b_id: b, kind, person_id } of rows)
        found.set(`${a} ${b}`, { a, b, kind, said: person_id !== null });
    }
  return [...found.values()];
}
