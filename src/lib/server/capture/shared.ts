import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';

/** What a phone's share sheet gives of a page or a text. */
export interface Shared {
  url: string;
  title: string;
  text: string;
}

/** How long what was shared waits to be looked at, in milliseconds: a week. */
const WAITS = 7 * 24 * 3600 * 1000;

/** Keeps what was shared until it is captured, and gives its id. */
export async function keepShared(ctx: Context, content: Shared): Promise<string> {
  const id = newId();
  await ctx.db('shared').insert({
    id,
    library_id: ctx.libraryId,
    person_id: ctx.personId,
    content: JSON.stringify(content),
    created: now(),
  });
  return id;
}

/** What was shared, for the person who shared it. */
export async function findShared(ctx: Context, id: string): Promise<Shared | undefined> {
  const row = (await scoped<{ id: string; person_id: string; content: string }>(ctx, 'shared')
    .where({ id, person_id: ctx.personId })
    .first('content')) as { content: string } | undefined;
  return row && (JSON.parse(row.content) as Shared);
}

/** Lets go of what waited too long. Run once at start, over all libraries. */
export const sweepShared = (db: Context['db']): Promise<number> =>
  db('shared')
    .where('created', '<', new Date(Date.now() - WAITS).toISOString())
    .delete();
