import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { link, mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { once, type EventEmitter } from 'node:events';
import { pipeline } from 'node:stream/promises';
import Database from 'better-sqlite3';
import tar from 'tar-stream';
import {
  bagInfo,
  DECLARATION,
  infoOf,
  leadsOut,
  manifest,
  oxum,
  problemsOfBag,
  readManifest,
} from '../../core/bag';
import { writeFormat } from '../../core/formats';
import { annotationPage, type AnnotatedReply } from '../../core/passages-out';
import type { SourceRecord } from '../../core/source';
import { MIGRATIONS } from '../db/migrations';
import { openDatabase } from '../db/open';
import { openPassage, type PassageRow } from '../passages/repository';
import { BackupProblem } from './problem';

/** Where the data of a server is: one folder with the database and the kept files. */
const databaseIn = (folder: string) => join(folder, 'retexa.sqlite');
const filesIn = (folder: string) => join(folder, 'files');

const SHA256 = /^[0-9a-f]{64}$/;
const DATABASE = 'data/retexa.sqlite';
const FILES = 'data/files/';

/** How far it is: bytes that are packed or read, of all there are. */
export type Progress = (done: number, total: number) => void;

/** Bytes after which what was written is flushed to the disk. */
const FLUSHED = 8 * 1024 * 1024;

/** All kept files, in order, with their sizes. What is half-written has another name and is left out. */
async function keptFiles(folder: string): Promise<{ sha256: string; place: string; size: number }[]> {
  const files: { sha256: string; place: string; size: number }[] = [];
  for (const part of (await readdir(filesIn(folder)).catch(() => [])).sort())
    for (const sha256 of (await readdir(join(filesIn(folder), part)).catch(() => [])).sort()) {
      if (!SHA256.test(sha256)) continue;
      const place = join(filesIn(folder), part, sha256);
      files.push({ sha256, place, size: (await stat(place)).size });
    }
  return files;
}

const nameOfFolder = (text: string) => text.replace(/[^\p{L}\p{N}._-]+/gu, '-').slice(0, 80) || 'library';

/** What is in a database for who has no Retexa: of each library its records as CSL-JSON and its passages as Web Annotations. */
function* readable(db: Database.Database): Generator<{ name: string; text: string }> {
  const libraries = db.prepare('SELECT id, name FROM library ORDER BY created').all() as {
    id: string;
    name: string;
  }[];
  for (const { id, name } of libraries) {
    const folder = `data/libraries/${nameOfFolder(name)}-${id.slice(-6)}`;
    const sources = db
      .prepare(
        'SELECT citekey, record FROM source WHERE library_id = ? AND binned IS NULL AND merged_into IS NULL ORDER BY sort_key',
      )
      .all(id) as { citekey: string; record: string }[];
    const records = sources.map(({ citekey, record }) => ({
      key: citekey,
      record: JSON.parse(record) as SourceRecord,
    }));
    yield { name: `${folder}/records.json`, text: writeFormat('csl-json', records).text };
    const rows = db
      .prepare(
        `SELECT passage.*, COALESCE(copy.address, '') AS address, COALESCE(copy.title, '') AS title, COALESCE(copy.media_type, '') AS media_type, person.name AS creator
         FROM passage JOIN person ON person.id = passage.owner_id LEFT JOIN copy ON copy.id = passage.copy_id
         WHERE passage.library_id = ? AND passage.binned IS NULL ORDER BY passage.source_id, passage.copy_id, passage.owner_id, passage.added`,
      )
      .all(id) as (PassageRow & { address: string; title: string; media_type: string; creator: string })[];
    const pages = [];
    const said = db.prepare(
      'SELECT reply.id, reply.passage_id, reply.text, reply.added, person.name AS "by" FROM reply JOIN person ON person.id = reply.owner_id WHERE reply.library_id = ? AND reply.binned IS NULL ORDER BY reply.added, reply.id',
    );
    const replies = new Map<string, AnnotatedReply[]>();
    for (const { passage_id, ...reply } of said.all(id) as (AnnotatedReply & { passage_id: string })[])
      replies.set(passage_id, [...(replies.get(passage_id) ?? []), reply]);
    for (let i = 0; i < rows.length;) {
      const first = rows[i]!;
      const end = rows.findIndex(
        (row, at) =>
          at > i &&
          (row.source_id !== first.source_id ||
            row.copy_id !== first.copy_id ||
            row.owner_id !== first.owner_id),
      );
      const part = rows.slice(i, end === -1 ? rows.length : end);
      pages.push(
        annotationPage(part.map(openPassage), {
          address: first.address || `urn:uuid:${first.source_id}`,
          title: first.title,
          mediaType: first.media_type,
          creator: first.creator,
          leafOf: new Map(),
          pictures: new Map(),
          replies,
        }),
      );
      i += part.length;
    }
    yield { name: `${folder}/passages.jsonld`, text: `${JSON.stringify(pages, null, 1)}\n` };
  }
}

const ABOUT = `This is a backup of Retexa: a bag (BagIt 1.0, RFC 8493) that can be read without it.

libraries/NAME/records.json     the records of a library as CSL-JSON
libraries/NAME/passages.jsonld  its passages as pages of W3C Web Annotations
files/                          the documents, each under the SHA-256 of its bytes
retexa.sqlite                   all of it, with histories, notes, outlines and drafts, as an SQLite 3 database

manifest-sha256.txt, beside this folder, has the checksum of every file: "sha256sum -c manifest-sha256.txt" goes through them.
To restore it into Retexa: npm run backup -- restore THIS-FILE
`;

/** Flushes what was written of a file to the disk. */
async function synced(file: string): Promise<void> {
  const handle = await open(file, 'r+');
  await handle.sync();
  await handle.close();
}

/**
 * Makes a backup of a data folder as one archive, while the server goes on: the database as SQLite's own backup copies it, at one
 * moment; the documents, whose names are their checksums and which are never written over; and what can be read without us, made
 * from that copy. The archive has its name only once it is whole. A kept file that is damaged is told, and packed as it is.
 */
export async function makeBag(
  folder: string,
  file: string,
  progress: Progress = () => undefined,
): Promise<{ damaged: string[]; bytes: number }> {
  if (!existsSync(databaseIn(folder))) throw new BackupProblem(`There is no library in ${folder}.`);
  await mkdir(dirname(file), { recursive: true });
  const [copy, unfinished] = [`${file}.sqlite.part`, `${file}.part`];
  const damaged: string[] = [];
  try {
    const live = new Database(databaseIn(folder), { readonly: true });
    try {
      // In one step: one that is begun anew at each write of others would never end.
      await live.backup(copy, { progress: () => 2 ** 30 });
    } finally {
      live.close();
    }
    const files = await keptFiles(folder);
    const size = (await stat(copy)).size;
    const total = files.reduce((sum, one) => sum + one.size, size);
    let done = 0;

    const top = basename(file).replace(/\.tar$/, '');
    const pack = tar.pack();
    const out = createWriteStream(unfinished);
    const piped = pipeline(pack, out);
    // Told where it is waited for.
    piped.catch(() => undefined);
    const sums = new Map<string, string>();
    let payload = 0;
    let unsynced = 0;
    /** Packs a file and notes its checksum; ends with the error of the disk where there is one. */
    const add = async (
      name: string,
      size: number,
      content: AsyncIterable<Buffer> | Iterable<Buffer>,
      into = sums,
    ): Promise<string> => {
      const hash = createHash('sha256');
      const packed = new Promise<void>((resolve, reject) => {
        const header = { name: `${top}/${name}`, size, mtime: new Date(), mode: 0o644 };
        const entry = pack.entry(header, (error) => (error ? reject(error) : resolve()));
        const write = async () => {
          for await (const chunk of content) {
            hash.update(chunk);
            done += chunk.length;
            progress(Math.min(done, total), total);
            // What waits to be written stays little, so that a commit of the server does not wait for all of it.
            if ((unsynced += chunk.length) > FLUSHED) {
              unsynced = 0;
              await synced(unfinished);
            }
            if (!entry.write(chunk)) await once(entry as unknown as EventEmitter, 'drain');
          }
          entry.end(undefined);
        };
        write().catch(reject);
      });
      await Promise.race([packed, piped.then(() => packed)]);
      const sum = hash.digest('hex');
      into.set(name, sum);
      if (into === sums) payload += size;
      return sum;
    };
    const addText = (name: string, text: string, into = sums) => {
      const bytes = Buffer.from(text, 'utf8');
      return add(name, bytes.length, [bytes], into);
    };
    await addText('data/README.txt', ABOUT);
    await add(DATABASE, size, createReadStream(copy));
    const db = new Database(copy, { readonly: true });
    try {
      for (const { name, text } of readable(db)) await addText(name, text);
    } finally {
      db.close();
    }
    for (const { sha256, place, size: bytes } of files)
      if ((await add(`${FILES}${sha256.slice(0, 2)}/${sha256}`, bytes, createReadStream(place))) !== sha256)
        damaged.push(sha256);
    const tags = new Map<string, string>();
    await addText('bagit.txt', DECLARATION, tags);
    await addText(
      'bag-info.txt',
      bagInfo({
        'Bagging-Date': new Date().toISOString().slice(0, 10),
        'Bag-Software-Agent': 'Retexa',
        'External-Description':
          'All libraries of a Retexa server: records, passages, documents and the database',
        'Payload-Oxum': oxum(payload, sums.size),
      }),
      tags,
    );
    await addText('manifest-sha256.txt', manifest(sums), tags);
    await addText('tagmanifest-sha256.txt', manifest(tags), new Map());
    pack.finalize();
    await piped;
    await synced(unfinished);
    await rename(unfinished, file);
    return { damaged, bytes: (await stat(file)).size };
  } finally {
    for (const left of [copy, `${copy}-journal`, unfinished]) await rm(left, { force: true });
  }
}

/** Goes through an archive, file by file; paths are those within its one folder. */
async function eachEntry(
  file: string,
  take: (path: string, content: AsyncIterable<Buffer>) => Promise<void>,
  progress: Progress = () => undefined,
): Promise<void> {
  const total = (await stat(file)).size;
  const extract = tar.extract();
  const bytes = createReadStream(file);
  let done = 0;
  bytes.on('data', (chunk) => progress((done += chunk.length), total));
  const read = pipeline(bytes, extract);
  read.catch(() => undefined);
  for await (const entry of extract) {
    const { name, type } = entry.header;
    const path = name.split('/').slice(1).join('/');
    if (type !== 'file' || !path) {
      entry.resume();
      continue;
    }
    if (leadsOut(path)) throw new BackupProblem(`${name} leads out of the archive. Nothing was read of it.`);
    await take(path, entry as AsyncIterable<Buffer>);
  }
  await read;
}

async function textOf(content: AsyncIterable<Buffer>): Promise<string> {
  const parts: Buffer[] = [];
  for await (const chunk of content) parts.push(chunk);
  return Buffer.concat(parts).toString('utf8');
}
async function sumOf(content: AsyncIterable<Buffer>): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of content) hash.update(chunk);
  return hash.digest('hex');
}

/** What is wrong with an archive, in words; nothing where it is whole. */
export const problemsOf = async (file: string, progress?: Progress): Promise<string[]> =>
  (await lookedThrough(file, progress)).problems;

/** Goes through an archive: what is wrong with it, and what it says of itself. */
async function lookedThrough(
  file: string,
  progress?: Progress,
): Promise<{ problems: string[]; info: string }> {
  const refused = (problem: string) => ({ problems: [problem], info: '' });
  const found = new Map<string, string>();
  const texts = new Map<string, string>();
  try {
    await eachEntry(
      file,
      async (path, content) => {
        if (path.startsWith('data/')) found.set(path, await sumOf(content));
        else {
          const text = await textOf(content);
          texts.set(path, text);
          found.set(path, createHash('sha256').update(text).digest('hex'));
        }
      },
      progress,
    );
  } catch (error) {
    if (error instanceof BackupProblem) throw error;
    return refused(
      `The archive ends early or is none: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  const listed = texts.get('manifest-sha256.txt');
  if (listed === undefined)
    return refused('manifest-sha256.txt is missing: the archive ends early, or is no backup');
  try {
    const said = new Map([
      ...readManifest(listed),
      ...readManifest(texts.get('tagmanifest-sha256.txt') ?? ''),
    ]);
    const problems = problemsOfBag(texts.get('bagit.txt'), said, found);
    if (!found.has(DATABASE)) problems.push(`${DATABASE} is missing: it is a bag, and no backup of Retexa`);
    const info = texts.get('bag-info.txt') ?? '';
    if (infoOf(info, 'Payload-Oxum') === undefined)
      problems.push('bag-info.txt does not say how much there is');
    return { problems, info };
  } catch (error) {
    return refused(error instanceof Error ? error.message : String(error));
  }
}

/** Refuses while a server has the database open; leaves all of it in its one file. */
function takeOver(database: string): void {
  const db = new Database(database, { timeout: 0 });
  try {
    db.pragma('locking_mode = EXCLUSIVE');
    db.exec('BEGIN EXCLUSIVE; COMMIT');
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.pragma('journal_mode = DELETE');
  } catch {
    throw new BackupProblem('The server is running on this data folder. Stop it first, then restore.');
  } finally {
    db.close();
  }
}

/** Refuses a database that is damaged, or was written by a later version than this one. */
function checkDatabase(file: string): void {
  const db = new Database(file, { readonly: true });
  try {
    const [{ integrity_check: said } = { integrity_check: '' }] = db.pragma('integrity_check(1)') as {
      integrity_check: string;
    }[];
    if (said !== 'ok') throw new BackupProblem(`The database in the backup is damaged: ${said}`);
    const known = new Set(MIGRATIONS.map((m) => m.name));
    const later = (db.prepare('SELECT name FROM knex_migrations').pluck().all() as string[]).filter(
      (name) => !known.has(name),
    );
    if (later.length)
      throw new BackupProblem('The backup was made by a later version of Retexa. Restore it with that one.');
  } finally {
    db.close();
  }
}

/**
 * Restores an archive into a data folder. It is checked first, as a whole. Documents are added beside those there are; the database
 * is put in its place in one step at the end, and one that was there is kept beside it. Stopped at any moment, the folder has either
 * what it had or what was restored.
 */
export async function restoreBag(
  file: string,
  folder: string,
  { replace = false, progress }: { replace?: boolean; progress?: Progress } = {},
): Promise<{ files: number; before?: string }> {
  const problems = await problemsOf(file);
  if (problems.length)
    throw new BackupProblem(`This archive is not restored: ${problems.slice(0, 5).join('; ')}`);
  const there = existsSync(databaseIn(folder));
  if (there && !replace)
    throw new BackupProblem(
      `There is a library in ${folder} already. With --replace the backup takes its place; what is there is kept beside it.`,
    );
  await mkdir(folder, { recursive: true });
  if (there) takeOver(databaseIn(folder));
  const fresh = `${databaseIn(folder)}.restoring`;
  try {
    const files = await takeOut(file, folder, { database: fresh, wanted: () => true, progress });
    checkDatabase(fresh);
    const before = there
      ? `${databaseIn(folder)}.before-${new Date().toISOString().replace(/[:.]/g, '-')}`
      : undefined;
    if (before) await link(databaseIn(folder), before);
    await rename(fresh, databaseIn(folder));
    return { files, ...(before ? { before } : {}) };
  } finally {
    await rm(fresh, { force: true });
  }
}

/**
 * Takes out of an archive that is whole the documents that are wanted and not there yet, and its database where it is said where to.
 * Each has its name only once it is whole. Gives how many documents came.
 */
async function takeOut(
  file: string,
  folder: string,
  {
    database,
    wanted,
    progress,
  }: { database?: string; wanted: (sha256: string) => boolean; progress?: Progress | undefined },
): Promise<number> {
  let files = 0;
  await eachEntry(
    file,
    async (path, content) => {
      const document = path.startsWith(FILES) ? placeIn(folder, path) : undefined;
      const into =
        path === DATABASE
          ? database
          : document && wanted(basename(document)) && !existsSync(document)
            ? document
            : undefined;
      if (!into) {
        for await (const _chunk of content);
        return;
      }
      await mkdir(dirname(into), { recursive: true });
      const part = `${into}.part`;
      try {
        await pipeline(content, createWriteStream(part));
        await synced(part);
        await rename(part, into);
      } finally {
        await rm(part, { force: true });
      }
      if (into === document) files++;
    },
    progress,
  );
  return files;
}

/**
 * Opens an archive beside a running server: goes through all of it, and puts its database at a place of its own, brought up to this
 * version. Gives the day it was made. Refuses an archive that is not whole.
 */
export async function openBag(
  file: string,
  database: string,
  progress?: Progress,
): Promise<string | undefined> {
  const { problems, info } = await lookedThrough(file, progress);
  if (problems.length)
    throw new BackupProblem(`This archive is not opened: ${problems.slice(0, 5).join('; ')}`);
  await takeOut(file, dirname(database), { database, wanted: () => false });
  checkDatabase(database);
  const db = await openDatabase(database);
  await db.destroy();
  return infoOf(info, 'Bagging-Date');
}

/** Adds those documents of an archive to a data folder that are asked for and are not there. Gives how many came. */
export const documentsOf = (
  file: string,
  folder: string,
  asked: ReadonlySet<string>,
  progress?: Progress,
): Promise<number> => takeOut(file, folder, { wanted: (sha256) => asked.has(sha256), progress });

/** Where a document of an archive is kept; refuses a name that is no checksum. */
function placeIn(folder: string, path: string): string {
  const sha256 = basename(path);
  if (!SHA256.test(sha256)) throw new BackupProblem(`${path} is no document of a backup.`);
  return join(filesIn(folder), sha256.slice(0, 2), sha256);
}
