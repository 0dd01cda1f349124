import { join } from 'node:path';
import { Tinypool } from 'tinypool';
import { config } from '../config';
import { Refusal } from '../refusal';
import type { FormatName, WriteItem, WriteResult } from '../../core/formats';
import type { CslType, Variable } from '../../core/source';
import type { ReadStyle } from '../../reading/styles';
import type { AsksTask, PrintTask, StyleTask, TermsTask, WriteTask } from './citing.worker';
import type { ReadTask, Results, Unread } from './reading.worker';
import type { ListTerms, PrintedList, PrintedReference, Run } from '../../core/citing';

/**
 * The worker threads. Pages are read in one, PDFs and scans in another, leaves are drawn in a third, so that a long
 * document never keeps a page waiting; and whole lists are printed apart from single references, which are waited for
 * while somebody types. A pool of one thread each: two cores serve them and the server.
 */
type PoolName = 'reading' | 'documents' | 'drawing' | 'citing' | 'lists';
const FILES: Record<PoolName, string> = {
  reading: 'reading',
  documents: 'reading',
  drawing: 'reading',
  citing: 'citing',
  lists: 'citing',
};
const MEGABYTES: Record<PoolName, number> = {
  reading: 512,
  documents: 768,
  drawing: 512,
  citing: 512,
  lists: 1024,
};

const pools = new Map<string, Tinypool>();

function pool(name: PoolName): Tinypool {
  const key = `${config.buildFolder} ${name}`;
  let made = pools.get(key);
  if (!made) {
    made = new Tinypool({
      filename: join(config.buildFolder, 'workers', `${FILES[name]}.js`),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 120_000,
      // What is read or printed lives a moment only: in a larger nursery it is gone before it is ever moved.
      resourceLimits: { maxOldGenerationSizeMb: MEGABYTES[name], maxYoungGenerationSizeMb: 96 },
    });
    pools.set(key, made);
  }
  return made;
}

interface Bound {
  pool: PoolName;
  ms: number;
  /** What the person is told when it takes longer, or more memory than there is. */
  tooLong: string;
}

const BOUNDS: Record<ReadTask['task'], Bound> = {
  page: {
    pool: 'reading',
    ms: 20_000,
    tooLong:
      'The page is built in a way that takes too long to read. Start by hand with its address filled in.',
  },
  file: {
    pool: 'reading',
    ms: 300_000,
    tooLong: 'The file takes too long to read. Cut it into smaller files and import them one after another.',
  },
  catalogue: { pool: 'reading', ms: 10_000, tooLong: 'The catalogue’s answer takes too long to read.' },
  pdf: {
    pool: 'documents',
    ms: 120_000,
    tooLong: 'The PDF takes too long to read. Split it and drop the part you cite.',
  },
  scan: { pool: 'documents', ms: 120_000, tooLong: 'The text of the picture takes too long to recognise.' },
  set: { pool: 'documents', ms: 60_000, tooLong: 'The document takes too long to set for reading.' },
  draw: { pool: 'drawing', ms: 30_000, tooLong: 'The page takes too long to draw.' },
};

/** Reads in a worker thread with bounded memory and time. Refuses with words for the person. */
export async function read<T extends ReadTask>(
  task: T,
  cancelled?: AbortSignal,
): Promise<Results[T['task']]> {
  const bound = BOUNDS[task.task];
  const late = AbortSignal.timeout(bound.ms);
  const signal = cancelled ? AbortSignal.any([late, cancelled]) : late;
  let result: Results[keyof Results] | Unread;
  try {
    result = (await pool(bound.pool).run(task, { signal })) as Results[keyof Results] | Unread;
  } catch (error) {
    if (cancelled?.aborted) throw new Refusal(499, 'The capture was cancelled.');
    const memory =
      /memory/i.test((error as Error).message) ||
      (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY';
    if (late.aborted || memory) throw new Refusal(422, bound.tooLong);
    throw error;
  }
  if ('unreadable' in result) throw new Refusal(422, result.unreadable);
  return result as Results[T['task']];
}

type Printed<W> = W extends 'list' ? PrintedList : W extends 'each' ? PrintedReference[] : Run[];

/** Prints in a worker thread, one request after another; a list that is no longer wanted is given up, with a Refusal. */
export async function print<W extends PrintTask['what']>(
  task: PrintTask & { what: W },
  unwanted?: AbortSignal,
): Promise<Printed<W>> {
  try {
    const printing = pool(task.what === 'list' ? 'lists' : 'citing').run(
      task,
      unwanted && { signal: unwanted },
    );
    return (await printing) as Printed<W>;
  } catch (error) {
    if (unwanted?.aborted) throw new Refusal(499, 'The list is not wanted any more.');
    throw error;
  }
}

/** Writes records in a file format. */
export const write = (format: FormatName, records: WriteItem[]): Promise<WriteResult> =>
  pool('lists').run({ what: 'write', format, records } satisfies WriteTask) as Promise<WriteResult>;

/** The variables a style can print of a type, read from the style itself. */
export const asks = (style: string, styleFile: string, type: CslType): Promise<Variable[]> =>
  pool('citing').run({ what: 'asks', style, styleFile, type } satisfies AsksTask) as Promise<Variable[]>;

/** The terms of a language, from its locale. */
export const terms = (localeFile: string): Promise<ListTerms> =>
  pool('citing').run({ what: 'terms', localeFile } satisfies TermsTask) as Promise<ListTerms>;

/** Reads a style a person brings. */
export const readStyle = (xml: string, localeFile: string): Promise<ReadStyle> =>
  pool('citing').run({ what: 'style', xml, localeFile } satisfies StyleTask) as Promise<ReadStyle>;

/** Ends the worker threads. */
export async function closePools(): Promise<void> {
  await Promise.all([...pools.values()].map((p) => p.destroy()));
  pools.clear();
}
