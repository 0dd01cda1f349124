import { scoped, type Context } from '../access/context';
import { now } from '../db/ids';

/** A query that is kept by a name. */
export interface SavedQuery {
  id: string;
  name: string;
  /** As it is written. */
  query: string;
}

/** The queries a library keeps, by name. */
export const savedQueries = async (ctx: Context): Promise<SavedQuery[]> =>
  (await scoped<SavedQuery>(ctx, 'saved_query')
    .orderBy('name')
    .select('id', 'name', 'query')) as SavedQuery[];

/** Keeps a query. */
export async function insertQuery(ctx: Context, kept: SavedQuery): Promise<void> {
  await ctx.db('saved_query').insert({
    ...kept,
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    created: now(),
  });
}

/** Lets go of a kept query. */
export async function deleteQuery(ctx: Context, id: string): Promise<void> {
  await scoped<SavedQuery>(ctx, 'saved_query').where({ id }).delete();
}
