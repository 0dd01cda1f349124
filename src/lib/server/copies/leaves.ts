import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { randomBytes } from 'node:crypto';
import { config } from '../config';
import type { Context } from '../access/context';
import { placeOf, readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import type { ContentsEntry, LeafLink } from '../../reading/pdf-inside';
import { getCopy } from './repository';
import { read } from '../workers/pools';

/** Width in pixels of a drawn leaf: twice the width of the reader's column at the reference size; and of a small one. */
const WIDTH = 1_300;
const SMALL = 220;

/**
 * The picture of a leaf (counted from 1), or a small one of it. Drawn once and kept beside the files; dropping the folder
 * loses nothing.
 */
export async function leafPicture(
  ctx: Context,
  copyId: string,
  leaf: number,
  small = false,
): Promise<{ bytes: Buffer; mediaType: string }> {
  const copy = await getCopy(ctx, copyId);
  if (copy.kind === 'image') return { bytes: await readKept(copy.sha256), mediaType: copy.media_type };
  if (copy.kind !== 'pdf' || !Number.isInteger(leaf) || leaf < 1)
    throw new Refusal(404, 'There is no such page in this copy.');
  const folder = join(config.dataFolder, 'drawn');
  const path = join(folder, `${copy.sha256}-${leaf}${small ? '-small' : ''}.png`);
  try {
    return { bytes: await readFile(path), mediaType: 'image/png' };
  } catch {
    const drawn = Buffer.from(
      await read({ task: 'draw', path: placeOf(copy.sha256), leaf, width: small ? SMALL : WIDTH }),
    );
    await mkdir(folder, { recursive: true });
    const part = `${path}.${randomBytes(4).toString('hex')}`;
    await writeFile(part, drawn);
    await rename(part, path);
    return { bytes: drawn, mediaType: 'image/png' };
  }
}

/** The PDF of a copy: where it is kept. Refuses a copy of another kind. */
export async function pdfOf(ctx: Context, copyId: string): Promise<string> {
  const { kind, sha256 } = await getCopy(ctx, copyId);
  if (kind !== 'pdf') throw new Refusal(404, 'This copy is no PDF.');
  return placeOf(sha256);
}

/** The document's own contents; a document that is no PDF has none. */
export async function contentsOf(ctx: Context, copyId: string): Promise<ContentsEntry[]> {
  const { kind, sha256 } = await getCopy(ctx, copyId);
  return kind === 'pdf' ? read({ task: 'contents', path: placeOf(sha256) }) : [];
}

/** The links on a leaf (counted from 1) of a document with pages. */
export async function linksOnLeaf(ctx: Context, copyId: string, leaf: number): Promise<LeafLink[]> {
  const { kind, sha256 } = await getCopy(ctx, copyId);
  return kind === 'pdf' ? read({ task: 'links', path: placeOf(sha256), leaf }) : [];
}
