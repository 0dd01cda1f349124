import { z } from 'zod';
import { checkHere } from '../access/belongs';
import { scoped, transaction, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

const units = z.number().int().min(0).max(1_000_000_000);

/** Where a person is in a copy: how much of its text stands above, how far they ever came, and its length, in UTF-16 units. */
export const readingPlace = z.strictObject({ at: units, furthest: units, length: units });
export type ReadingPlace = z.infer<typeof readingPlace>;

/** Puts down where the person is in a copy. It is theirs alone and changes nothing of the library: who only reads has one too. */
export async function keepPlace(ctx: Context, copyId: string, place: ReadingPlace): Promise<void> {
  await transaction(ctx, async (inner) => {
    await checkHere(inner, { copy: copyId });
    await inner
      .db('reading_place')
      .insert({
        library_id: inner.libraryId,
        copy_id: copyId,
        person_id: inner.personId,
        ...place,
        read: now(),
      })
      .onConflict(['copy_id', 'person_id'])
      .merge(['at', 'furthest', 'length', 'read']);
  });
}

/** Where the person stopped in a copy, and when they were last in it; nothing where it was not opened yet. */
export async function placeIn(
  ctx: Context,
  copyId: string,
): Promise<(ReadingPlace & { read: string }) | undefined> {
  return (await scoped<ReadingPlace & { copy_id: string; person_id: string }>(ctx, 'reading_place')
    .where('copy_id', copyId)
    .where('person_id', ctx.personId)
    .first('at', 'furthest', 'length', 'read')) as unknown as (ReadingPlace & { read: string }) | undefined;
}

/** How far the person has read of each of some sources, of the copy they came furthest in: 0 to 1. */
export async function readOf(ctx: Context, sourceIds: readonly string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const part of inParts([...sourceIds])) {
    const rows = (await ctx
      .db('copy')
      .join('reading_place', 'reading_place.copy_id', 'copy.id')
      .where({ 'reading_place.library_id': ctx.libraryId, 'reading_place.person_id': ctx.personId })
      .whereIn('copy.source_id', part)
      .groupBy('copy.source_id')
      .select('copy.source_id')
      .max({ share: ctx.db.raw('1.0 * furthest / MAX(length, 1)') })) as unknown as {
      source_id: string;
      share: number;
    }[];
    for (const { source_id, share } of rows) found.set(source_id, Math.min(1, share));
  }
  return found;
}
