import { isOpened, pictureSize, sniffBytes } from '../../reading/sniff';
import { scoped, type Context } from '../access/context';
import { notHere } from '../access/refusal';
import { keepFile, readKept } from '../files/store';

/** A picture of a page, as it is kept. */
export interface KeptPicture {
  sha256: string;
  mediaType: string;
  /** Where it came from. */
  address: string;
  bytes: number;
  width: number;
  height: number;
}

/** Keeps a picture whose bytes are here; nothing where it is none that is shown. */
export async function keepPicture(bytes: Uint8Array, address: string): Promise<KeptPicture | undefined> {
  const kind = sniffBytes(bytes);
  const size = pictureSize(bytes);
  if (!/^image\/(?:png|jpeg|webp|gif)$/.test(kind) || !size || !isOpened(size)) return undefined;
  return { sha256: await keepFile(bytes), mediaType: kind, address, bytes: bytes.length, ...size };
}

/** Notes the pictures of a copy. Their files must be in the store. */
export async function insertPictures(
  ctx: Context,
  copyId: string,
  pictures: readonly KeptPicture[],
): Promise<void> {
  for (const { sha256, mediaType, address } of pictures)
    await ctx
      .db('copy_picture')
      .insert({ library_id: ctx.libraryId, copy_id: copyId, sha256, media_type: mediaType, address })
      .onConflict(['copy_id', 'sha256'])
      .ignore();
}

/** The addresses of the pictures of a copy, by their SHA-256. */
export async function picturesOf(ctx: Context, copyId: string): Promise<Map<string, string>> {
  const rows = (await scoped(ctx, 'copy_picture').where({ copy_id: copyId }).select('sha256', 'address')) as {
    sha256: string;
    address: string;
  }[];
  return new Map(rows.map(({ sha256, address }) => [sha256, address]));
}

/** One picture of a copy; refuses one that is not of it. */
export async function pictureOf(
  ctx: Context,
  copyId: string,
  sha256: string,
): Promise<{ bytes: Buffer; mediaType: string }> {
  const row = (await scoped(ctx, 'copy_picture').where({ copy_id: copyId, sha256 }).first('media_type')) as
    { media_type: string } | undefined;
  if (!row) throw notHere('picture');
  return { bytes: await readKept(sha256), mediaType: row.media_type };
}

/** The pictures kept with a copy. */
export const pictureRows = async (
  ctx: Context,
  copyId: string,
): Promise<{ sha256: string; media_type: string }[]> =>
  (await scoped(ctx, 'copy_picture').where({ copy_id: copyId }).select('sha256', 'media_type')) as {
    sha256: string;
    media_type: string;
  }[];
