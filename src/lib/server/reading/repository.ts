import type { Priority, ReadingState } from '../../core/query';
import type { Context } from '../access/context';
import { inParts } from '../db/ids';

/** How far a person is with reading a source, and how much it matters to them; nothing where they have not said. */
export interface Reading {
  state: ReadingState | null;
  priority: Priority | null;
}

/** How far the person is with some sources, of those they have said it of. */
export async function readingOf(ctx: Context, sourceIds: readonly string[]): Promise<Map<string, Reading>> {
  const found = new Map<string, Reading>();
  for (const part of inParts([...sourceIds])) {
    const rows = (await ctx
      .db('reading')
      .whereIn('source_id', part)
      .where({ owner_id: ctx.personId })
      .select('source_id', 'state', 'priority')) as (Reading & { source_id: string })[];
    for (const { source_id, state, priority } of rows) found.set(source_id, { state, priority });
  }
  return found;
}

/** Keeps how far the person is with a source, or nothing where nothing is said. */
export async function putReading(
  ctx: Context,
  sourceId: string,
  is: Reading,
  changed: string,
): Promise<void> {
  const key = { source_id: sourceId, owner_id: ctx.personId };
  if (is.state || is.priority)
    await ctx
      .db('reading')
      .insert({ ...key, ...is, changed })
      .onConflict(['source_id', 'owner_id'])
      .merge();
  else await ctx.db('reading').where(key).delete();
}
