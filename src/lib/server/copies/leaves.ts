import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { randomBytes } from 'node:crypto';
import { config } from '../config';
import type { Context } from '../access/context';
import { placeOf, readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { getCopy } from './repository';
import { read } from '../workers/pools';

/** Width in pixels of a drawn leaf: twice the width of the reader's column at the reference size. */
const WIDTH = 1_300;

/** The picture of a leaf (counted from 1). Drawn once and kept beside the files; dropping the folder loses nothing. */
export async function leafPicture(
  ctx: Context,
  copyId: string,
  leaf: number,
): Promise<{ bytes: Buffer; mediaType: string }> {
  const copy = await getCopy(ctx, copyId);
  if (copy.kind === 'image') return { bytes: await readKept(copy.sha256), mediaType: copy.media_type };
  if (copy.kind !== 'pdf' || !Number.isInteger(leaf) || leaf < 1)
    throw new Refusal(404, 'There is no such page in this copy.');
  const folder = join(config.dataFolder, 'drawn');
  const path = join(folder, `${copy.sha256}-${leaf}.png`);
  try {
    return { bytes: await readFile(path), mediaType: 'image/png' };
  } catch {
    const drawn = Buffer.from(await read({ task: 'draw', path: placeOf(copy.sha256), leaf, width: WIDTH }));
    await mkdir(folder, { recursive: true });
    const part = `${path}.${randomBytes(4).toString('hex')}`;
    await writeFile(part, drawn);
    await rename(part, path);
    return { bytes: drawn, mediaType: 'image/png' };
  }
}
