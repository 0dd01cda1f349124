import { join } from 'node:path';
import { Tinypool } from 'tinypool';
import { config } from '../config';
import { Refusal } from '../refusal';
import type { PrintTask } from './citing.worker';
import type { ReadFileTask, ReadPage, ReadPageTask } from './reading.worker';
import type { PrintedList, PrintedReference, Run } from '../../core/citing';
import type { ReadResult } from '../../core/formats';

const pools = new Map<string, Tinypool>();

function pool(name: 'reading' | 'citing'): Tinypool {
  const key = `${config.buildFolder} ${name}`;
  let made = pools.get(key);
  if (!made) {
    made = new Tinypool({
      filename: join(config.buildFolder, 'workers', `${name}.js`),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 120_000,
      resourceLimits: { maxOldGenerationSizeMb: name === 'reading' ? 512 : 1024 },
    });
    pools.set(key, made);
  }
  return made;
}

/** How long a worker may take, in milliseconds, before it is ended. */
const PAGE_MS = 20_000;
const FILE_MS = 300_000;

async function bounded<T>(
  name: 'reading' | 'citing',
  task: unknown,
  ms: number,
  tooLong: string,
): Promise<T> {
  const signal = AbortSignal.timeout(ms);
  try {
    return (await pool(name).run(task, { signal })) as T;
  } catch (error) {
    if (signal.aborted) throw new Refusal(422, tooLong);
    throw error;
  }
}

/** Reads a page in a worker thread with bounded memory and time. */
export const readPage = (task: Omit<ReadPageTask, 'task'>): Promise<ReadPage> =>
  bounded(
    'reading',
    { task: 'page', ...task },
    PAGE_MS,
    'The page is built in a way that takes too long to read. Start by hand with its address filled in.',
  );

/** Reads a file of references in a worker thread. */
export const readReferences = (task: Omit<ReadFileTask, 'task'>): Promise<ReadResult> =>
  bounded(
    'reading',
    { task: 'file', ...task },
    FILE_MS,
    'The file takes too long to read. Cut it into smaller files and import them one after another.',
  );

type Printed<W> = W extends 'list' ? PrintedList : W extends 'each' ? PrintedReference[] : Run[];

/** Prints in a worker thread, one request after another. */
export const print = <W extends PrintTask['what']>(task: PrintTask & { what: W }): Promise<Printed<W>> =>
  pool('citing').run(task) as Promise<Printed<W>>;

/** Ends the worker threads. */
export async function closePools(): Promise<void> {
  await Promise.all([...pools.values()].map((p) => p.destroy()));
  pools.clear();
}
