import { scoped, type Context } from '../access/context';
import { now } from '../db/ids';
import type { Source } from '../sources/repository';

/** Keeps as which source of another library a source was brought there. */
export async function putCrossing(into: Context, fromId: string, toId: string): Promise<void> {
  await into
    .db('crossing')
    .insert({ from_id: fromId, library_id: into.libraryId, to_id: toId, at: now() })
    .onConflict(['from_id', 'library_id'])
    .merge();
}

/** The source there that is the same work: the one it was brought to before, or one with its DOI. */
export async function sameThere(into: Context, { id, record }: Source): Promise<string | undefined> {
  const living = () =>
    scoped<{ id: string }>(into, 'source').whereNull('binned').whereNull('merged_into') as ReturnType<
      typeof scoped<{ id: string }>
    >;
  const before = (await scoped(into, 'crossing').where({ from_id: id }).first('to_id')) as
    { to_id: string } | undefined;
  const brought =
    before && ((await living().where('id', before.to_id).first('id')) as { id: string } | undefined);
  if (brought) return brought.id;
  const doi = record.DOI?.toLowerCase();
  const same = doi && ((await living().where('doi', doi).first('id')) as { id: string } | undefined);
  return same ? same.id : undefined;
}
