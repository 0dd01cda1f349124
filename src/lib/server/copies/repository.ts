import { scoped, type Context } from '../access/context';
import { filesLeave } from '../files/leaving';
import { inParts, newId } from '../db/ids';
import { notHere } from '../access/refusal';
import { index, takeOutOfIndex } from '../search/repository';
import { insertPictures, type KeptPicture } from './pictures';

/** A stored document of a source. `sha256` names the bytes as captured, `readingSha256` the sanitised page. */
export interface Copy {
  id: string;
  source_id: string;
  kind: 'page' | 'pdf' | 'image' | 'audio';
  media_type: string;
  sha256: string;
  size: number;
  reading_sha256: string;
  title: string;
  address: string;
  captured: string;
  text: string;
  /** The printed label of each leaf of a document with pages, `null` where none is known; `null` for a page of the web. */
  labels: (string | null)[] | null;
  /** What the person should know of the copy: how its text was come by. */
  note: string | null;
}

interface Row extends Omit<Copy, 'labels'> {
  labels: string | null;
}
const opened = <R extends Pick<Row, 'labels'>>(row: R) => ({
  ...row,
  labels: row.labels ? (JSON.parse(row.labels) as (string | null)[]) : null,
});

/** Adds a copy. The files it names must be in the store. */
export async function insertCopy(
  ctx: Context,
  { pictures = [], ...copy }: Omit<Copy, 'id'> & { pictures?: readonly KeptPicture[] | undefined },
): Promise<Copy> {
  const row = { id: newId(), ...copy };
  await ctx.db('copy').insert({
    ...row,
    labels: row.labels && JSON.stringify(row.labels),
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
  });
  await insertPictures(ctx, row.id, pictures);
  await index(ctx, 'copy', row.id, row.text);
  return row;
}

/** One copy with its text; refuses when it is not in the library. */
export async function getCopy(ctx: Context, id: string): Promise<Copy> {
  const row = (await scoped<Row>(ctx, 'copy').where({ id }).first()) as Row | undefined;
  if (!row) throw notHere('copy');
  return opened(row);
}

/** What kind a copy is and of which source; nothing where it is not in the library. */
export const kindOfCopy = async (
  ctx: Context,
  id: string,
): Promise<{ source_id: string; kind: Copy['kind'] } | undefined> =>
  (await scoped(ctx, 'copy').where({ id }).first('source_id', 'kind')) as
    { source_id: string; kind: Copy['kind'] } | undefined;

/** Sets another reading page of the same text in a copy, with its pictures: for one whose pictures could not be had before. */
export async function renewReading(
  ctx: Context,
  id: string,
  readingSha256: string,
  pictures: readonly KeptPicture[],
): Promise<void> {
  const { reading_sha256: before } = await getCopy(ctx, id);
  await scoped(ctx, 'copy').where({ id }).update({ reading_sha256: readingSha256 });
  await insertPictures(ctx, id, pictures);
  if (before !== readingSha256) await filesLeave(ctx, [before]);
}

/** Sets what was read of a copy's document anew: its reading page, its text, its labels and what is said of it. */
export async function rereadCopy(
  ctx: Context,
  id: string,
  read: Pick<Copy, 'reading_sha256' | 'text' | 'labels' | 'note'>,
): Promise<void> {
  const { reading_sha256: before } = await getCopy(ctx, id);
  await scoped(ctx, 'copy')
    .where({ id })
    .update({ ...read, labels: read.labels && JSON.stringify(read.labels) });
  await index(ctx, 'copy', id, read.text);
  if (before !== read.reading_sha256) await filesLeave(ctx, [before]);
}

export type CopyHead = Omit<Copy, 'text'>;

/** The copies of a source without their text, newest first. */
export async function copiesOf(ctx: Context, sourceId: string): Promise<CopyHead[]> {
  const rows = (await scoped<Row>(ctx, 'copy')
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
      'labels',
      'note',
    )) as unknown as Omit<Row, 'text'>[];
  return rows.map(opened);
}

const withText = (ctx: Context) =>
  scoped<Row>(ctx, 'copy')
    .join('source', 'source.id', 'copy.source_id')
    .whereNull('source.binned')
    .where('copy.text', '!=', '');

/** How many copies have a text, of sources that are not in the bin. */
export const textsCounted = async (ctx: Context): Promise<number> =>
  ((await withText(ctx).count('copy.id as n').first()) as { n: number }).n;

/** The texts of copies in the order of their ids, after one of them; of sources that are not in the bin. */
export const textsAfter = (
  ctx: Context,
  after: string,
  most: number,
): Promise<{ id: string; sourceId: string; text: string }[]> =>
  withText(ctx)
    .where('copy.id', '>', after)
    .orderBy('copy.id')
    .limit(most)
    .select('copy.id as id', 'copy.source_id as sourceId', 'copy.text as text') as never;

/** The latest copy of a page by its address, of a source that is not in the bin; nothing where the page is not here. */
export async function copyOfAddress(ctx: Context, address: string): Promise<Copy | undefined> {
  const plain = address.replace(/#.*$/s, '');
  const row = (await scoped<Row>(ctx, 'copy')
    .join('source', 'source.id', 'copy.source_id')
    .whereIn('copy.address', [...new Set([address, plain])].filter(Boolean))
    .whereNull('source.binned')
    .orderBy('copy.captured', 'desc')
    .first('copy.*')) as Row | undefined;
  return row && opened(row);
}

/** Removes copies, with what they are found by; their files leave. Passages of them must be gone, or off them. */
export async function removeCopies(ctx: Context, ids: string[]): Promise<void> {
  for (const part of inParts(ids)) {
    const rows = (await scoped<Row>(ctx, 'copy')
      .whereIn('id', part)
      .select('sha256', 'reading_sha256')) as Pick<Row, 'sha256' | 'reading_sha256'>[];
    const pictures = (await scoped(ctx, 'copy_picture').whereIn('copy_id', part).select('sha256')) as {
      sha256: string;
    }[];
    await takeOutOfIndex(ctx, 'copy', part);
    await scoped(ctx, 'copy').whereIn('id', part).delete();
    await filesLeave(ctx, [
      ...rows.flatMap((r) => [r.sha256, r.reading_sha256]),
      ...pictures.map((p) => p.sha256),
    ]);
  }
}
