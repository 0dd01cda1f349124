import { scoped, type Context } from '../context';
import { newId } from '../db/ids';
import { notHere } from '../refusal';

/** A stored document of a source. `sha256` names the bytes as captured, `readingSha256` the sanitised page. */
export interface Copy {
  id: string;
  source_id: string;
  kind: 'page';
  media_type: string;
  sha256: string;
  size: number;
  reading_sha256: string;
  title: string;
  address: string;
  captured: string;
  text: string;
}

/** Adds a copy. The files it names must be in the store. */
export async function insertCopy(ctx: Context, copy: Omit<Copy, 'id'>): Promise<Copy> {
  const row = { id: newId(), ...copy };
  await ctx.db('copy').insert({ ...row, library_id: ctx.libraryId, owner_id: ctx.personId });
  return row;
}

/** One copy with its text; refuses when it is not in the library. */
export async function getCopy(ctx: Context, id: string): Promise<Copy> {
  const row = (await scoped<Copy>(ctx, 'copy').where({ id }).first()) as Copy | undefined;
  if (!row) throw notHere('copy');
  return row;
}

export type CopyHead = Omit<Copy, 'text'>;

/** The copies of a source without their text, newest first. */
export async function copiesOf(ctx: Context, sourceId: string): Promise<CopyHead[]> {
  return (await scoped<Copy>(ctx, 'copy')
    .where({ source_id: sourceId })
    .orderBy('captured', 'desc')
    .select(
      'id',
      'source_id',
      'kind',
      'media_type',
      'sha256',
      'size',
      'reading_sha256',
      'title',
      'address',
      'captured',
    )) as unknown as CopyHead[];
}
