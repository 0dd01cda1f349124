import { createReadStream } from 'node:fs';
import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { Asker } from '../accounts';
import { Refusal } from '../access/refusal';
import { config } from '../config';
import { log } from '../log';
import { beside } from './beside';
import { isName, nameNow } from './names';

export interface Backup {
  name: string;
  /** Bytes. */
  size: number;
  made: string;
}

/** How backups stand: those there are, newest first, and the one that is being made, with its share done of 100. */
export interface Backups {
  all: Backup[];
  making: { share: number } | undefined;
  /** What went wrong with the last one. */
  problem: string | undefined;
  /** Every how many hours one is made, and how many are kept; never by itself where it is not set. */
  every: number | undefined;
  keep: number;
}

export {
  beginBringing,
  closeOpened,
  openBrought,
  opening,
  openOwn,
  sweepOpened,
  type Opening,
} from './opened';

export * from './requests';

let making: { share: number; name: string } | undefined;
let problem: string | undefined;

/** Refuses who does not keep the server: a backup holds what everybody keeps, private or not. */
export function checkKeeper(asker: Asker | undefined): void {
  if (asker?.kind === 'alone' || (asker?.kind === 'person' && asker.keeper)) return;
  throw new Refusal(403, 'Only who keeps the server makes backups: they hold what everybody keeps.');
}

async function listed(): Promise<Backup[]> {
  const names = (await readdir(config.backupFolder).catch(() => [])).filter(isName).sort().reverse();
  return Promise.all(
    names.map(async (name) => {
      const { size, mtime } = await stat(join(config.backupFolder, name));
      return { name, size, made: mtime.toISOString() };
    }),
  );
}

export const backups = async (): Promise<Backups> => ({
  all: await listed(),
  making: making && { share: making.share },
  problem,
  every: config.backupHours,
  keep: config.backupsKept,
});

/** Begins a backup, in a process of its own; one is made at a time. Those beyond how many are kept go once it is whole. */
export function beginBackup(): void {
  if (making) throw new Refusal(409, 'A backup is being made already.');
  const name = nameNow();
  const now = (making = { share: 0, name });
  problem = undefined;
  beside(['make', join(config.backupFolder, name)], { share: (share) => (now.share = share) })
    .then(() => letGo().catch((err: unknown) => log.warn({ err }, 'old backups are still there')))
    .catch((error: Error) => {
      problem = error.message;
      log.error({ said: problem }, 'a backup was not made');
    })
    .finally(() => {
      if (making === now) making = undefined;
    });
}

/** Takes away the oldest backups beyond how many are kept. */
async function letGo(): Promise<void> {
  for (const { name } of (await listed()).slice(config.backupsKept))
    await rm(join(config.backupFolder, name), { force: true });
}

/** A backup, to be saved elsewhere. */
export async function backupFile(name: string): Promise<{ size: number; body: ReadableStream<Uint8Array> }> {
  const place = join(config.backupFolder, name);
  const found = isName(name) ? await stat(place).catch(() => undefined) : undefined;
  if (!found) throw new Refusal(404, 'This backup is not here. It may have made room for newer ones.');
  return { size: found.size, body: Readable.toWeb(createReadStream(place)) as ReadableStream<Uint8Array> };
}

/** How often it is looked whether the next backup is due, in milliseconds. */
const LOOKS = 10 * 60_000;

/** Makes backups by themselves, where it is set how often. */
export function keepBackups(): void {
  const hours = config.backupHours;
  if (!hours) return;
  const look = async () => {
    const [newest] = await listed();
    if (!making && (!newest || Date.now() - Date.parse(newest.made) >= hours * 3_600_000)) beginBackup();
  };
  const looked = () => void look().catch((err: unknown) => log.error({ err }, 'no backup was begun'));
  looked();
  setInterval(looked, LOOKS).unref();
}
