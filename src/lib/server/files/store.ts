import { createHash, randomBytes } from 'node:crypto';
import { mkdir, open, readFile, readdir, rename, stat, unlink } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { config } from '../config';

const SHA256 = /^[0-9a-f]{64}$/;

/** Where the bytes of a SHA-256 are kept, whether they are there or not. */
export function placeOf(sha256: string): string {
  if (!SHA256.test(sha256)) throw new RangeError('not a SHA-256');
  return join(config.filesFolder, sha256.slice(0, 2), sha256);
}

/**
 * Keeps bytes under their SHA-256 and gives it. Written to a temporary name, synced, then renamed, so a file of that
 * name is always whole; keeping the same bytes again costs nothing.
 */
export async function keepFile(bytes: Uint8Array): Promise<string> {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const place = placeOf(sha256);
  if ((await stat(place).catch(() => undefined))?.size === bytes.byteLength) return sha256;
  await mkdir(dirname(place), { recursive: true });
  const temporary = `${place}.${randomBytes(6).toString('hex')}.part`;
  const file = await open(temporary, 'wx');
  try {
    await file.writeFile(bytes);
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(temporary, place);
  return sha256;
}

/** The bytes kept under a SHA-256. Throws when there are none. */
export function readKept(sha256: string): Promise<Buffer> {
  return readFile(placeOf(sha256));
}

/** Removes the bytes kept under a SHA-256; whether there were any. */
export async function removeFile(sha256: string): Promise<boolean> {
  return unlink(placeOf(sha256)).then(
    () => true,
    () => false,
  );
}

/** Removes what an interrupted write left behind; gives how many files. Run at start, before anything is written. */
export async function sweepParts(): Promise<number> {
  const folders = await readdir(config.filesFolder).catch(() => []);
  let swept = 0;
  for (const folder of folders)
    for (const name of await readdir(join(config.filesFolder, folder)).catch(() => []))
      if (name.endsWith('.part')) {
        await unlink(join(config.filesFolder, folder, name));
        swept++;
      }
  return swept;
}
