import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import Database from 'better-sqlite3';
import { Refusal } from '../access/refusal';
import { newId } from '../db/ids';
import { database } from '../db/open';
import { config } from '../config';
import { placeOf } from '../files/store';
import { log } from '../log';
import { renewAll } from '../sources/renewing';
import { beside } from './beside';
import { bringLibrary, filesNamed, librariesIn, type Brought, type LibraryInBag } from './brought';
import { isName } from './names';
import { BackupProblem } from './problem';

/** A backup that was opened beside the server, to bring libraries back out of it. */
export interface Opened {
  /** What it is called: its file. */
  name: string;
  made: string;
  libraries: (LibraryInBag & { here: boolean })[];
}

/** What goes on with a backup that is opened. */
export interface Opening {
  opened: Opened | undefined;
  /** What is under way, with its share done of 100. */
  under: { way: 'opening' | 'bringing'; share: number } | undefined;
  problem: string | undefined;
  brought: (Brought & { missing: number }) | undefined;
}

interface Held {
  name: string;
  file: string;
  /** The file goes when the backup is closed: it was brought for this. */
  lent: boolean;
  database: string;
  made: string;
}

let held: Held | undefined;
let under: Opening['under'];
let problem: string | undefined;
let brought: Opening['brought'];

/** What an opened backup leaves in the data folder while it is open. */
const OPENED = /^opened-[0-9a-f-]{36}\.(?:tar|sqlite)/;
const placeFor = (kind: 'tar' | 'sqlite') => join(config.dataFolder, `opened-${newId()}.${kind}`);

async function letGo({ file, lent, database: place }: Held): Promise<void> {
  for (const left of [place, `${place}-wal`, `${place}-shm`, ...(lent ? [file] : [])])
    await rm(left, { force: true });
}

/** Takes away what an earlier run left open. Run at start. */
export async function sweepOpened(): Promise<void> {
  for (const name of await readdir(config.dataFolder).catch(() => []))
    if (OPENED.test(name)) await rm(join(config.dataFolder, name), { force: true });
}

const openBagHere = ({ database: place }: Held) => new Database(place, { readonly: true });

/** How the backup that is opened stands. */
export async function opening(): Promise<Opening> {
  let opened: Opened | undefined;
  if (held && under?.way !== 'opening') {
    const bag = openBagHere(held);
    try {
      const here = new Set((await (await database())('library').pluck('id')) as string[]);
      const libraries = librariesIn(bag).map((one) => ({ ...one, here: here.has(one.id) }));
      opened = { name: held.name, made: held.made, libraries };
    } finally {
      bag.close();
    }
  }
  return { opened, under, problem, brought };
}

/** Work with a backup, one at a time; what goes wrong is told in its state. */
function goOn(way: 'opening' | 'bringing', work: (told: (share: number) => void) => Promise<void>): void {
  if (under) throw new Refusal(409, 'A backup is being opened or brought in already.');
  const now = (under = { way, share: 0 });
  problem = brought = undefined;
  work((share) => (now.share = share))
    .catch((error: unknown) => {
      const foreseen = error instanceof BackupProblem;
      problem = foreseen ? error.message : 'Something went wrong inside Retexa. Nothing here was changed.';
      log[foreseen ? 'warn' : 'error']({ err: error }, `a backup: ${way} failed`);
    })
    .finally(() => (under = undefined));
}

/** Closes the backup that is open; what was brought out of it stays. */
export async function closeOpened(): Promise<void> {
  if (under) throw new Refusal(409, 'Something is under way with this backup. Wait until it is done.');
  const last = held;
  held = problem = brought = undefined;
  if (last) await letGo(last);
}

async function beginOpening(name: string, file: string, lent: boolean): Promise<void> {
  await closeOpened();
  const made = (await stat(file)).mtime.toISOString();
  const next: Held = { name, file, lent, database: placeFor('sqlite'), made };
  goOn('opening', async (told) => {
    try {
      const said = await beside(['open', file, next.database], { share: told });
      next.made = /^made (\S+)$/m.exec(said)?.[1] ?? made;
      held = next;
    } catch (error) {
      await letGo(next);
      throw error;
    }
  });
}

/** Opens one of the server's own backups: goes through all of it, beside the server. */
export async function openOwn(name: string): Promise<void> {
  const file = join(config.backupFolder, name);
  if (!isName(name) || !(await stat(file).catch(() => undefined)))
    throw new Refusal(404, 'This backup is not here. It may have made room for newer ones.');
  await beginOpening(name, file, false);
}

/** Takes a backup of this or another server in, as its bytes come, and opens it. */
export async function openBrought(name: string, body: ReadableStream<Uint8Array> | null): Promise<void> {
  if (!body) throw new Refusal(400, 'There is no file in this request.');
  if (under) throw new Refusal(409, 'A backup is being opened or brought in already.');
  await mkdir(config.dataFolder, { recursive: true });
  const file = placeFor('tar');
  try {
    await pipeline(Readable.fromWeb(body as never), createWriteStream(file));
    await beginOpening(name, file, true);
  } catch (error) {
    await rm(file, { force: true });
    throw error;
  }
}

/** Brings a library out of the backup that is open: its documents first, beside the server, then its rows. */
export function beginBringing(libraryId: string, who: { personId: string; as?: string }): void {
  const from = held;
  if (!from) throw new Refusal(409, 'No backup is open any more. Open it again.');
  const bag = openBagHere(from);
  try {
    if (!librariesIn(bag).some(({ id }) => id === libraryId))
      throw new Refusal(404, 'This backup has no such library.');
    goOn('bringing', async (told) => {
      try {
        const named = filesNamed(bag, libraryId);
        // Its documents are the most of it by far.
        await beside(['documents', from.file], { share: (n) => told(n * 0.6), input: [...named].join('\n') });
        const db = await database();
        const copiedOn = from.made.slice(0, 10);
        const came = await bringLibrary(db, bag, libraryId, {
          ...who,
          copiedOn,
          progress: (share) => told(60 + Math.floor(share * 40)),
        });
        brought = { ...came, missing: await missingOf(named) };
        renewAll(db).catch((err: unknown) => log.error({ err }, 'what is derived is not up to date'));
      } finally {
        bag.close();
      }
    });
  } catch (error) {
    bag.close();
    throw error;
  }
}

/** How many of the files that are named are not there, such as those that were damaged when the backup was made. */
async function missingOf(named: ReadonlySet<string>): Promise<number> {
  let missing = 0;
  for (const sha256 of named) if (!(await stat(placeOf(sha256)).catch(() => undefined))) missing++;
  return missing;
}
