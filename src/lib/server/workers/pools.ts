import { join } from 'node:path';
import PQueue from 'p-queue';
import { Tinypool } from 'tinypool';
import { config } from '../config';
import { Refusal } from '../access/refusal';
import type { FormatName, WriteItem, WriteResult } from '../../core/formats';
import type { CslType } from '../../core/source';
import type { ManuscriptOut } from '../../reading/manuscripts';
import type { ReadStyle } from '../../reading/styles';
import type {
  Asked,
  AsksTask,
  KeysTask,
  ManuscriptTask,
  TemplateTask,
  UnreadableFile,
  PrintTask,
  StyleTask,
  TermsTask,
  TextPrinted,
  WriteTask,
} from './citing.worker';
import type { Gathered, GatherTask } from './gathering.worker';
import { readers, type Readers, type ReadTask, type Results } from '../../reading/apart';
import { Unreadable } from '../../reading/failure';
import type { ListTerms, PrintedList, PrintedReference, Run, ToldList, TracedPrint } from '../../core/citing';

/**
 * Documents are read in processes of their own (see `reading/apart`); references are printed in worker threads, whole lists
 * apart from single references, which are waited for while somebody types, and styles that are brought apart from both. Lists a
 * person looks at or saves are gathered and printed in one thread (see `lists.worker`).
 */
type PoolName = 'citing' | 'lists' | 'styles' | 'manuscripts' | 'gathering';
const MEGABYTES: Record<PoolName, number> = {
  citing: 512,
  lists: 1024,
  styles: 512,
  manuscripts: 1024,
  gathering: 1536,
};

const pools = new Map<string, Tinypool>();

function pool(name: PoolName): Tinypool {
  const key = `${config.buildFolder} ${name}`;
  let made = pools.get(key);
  if (!made) {
    made = new Tinypool({
      filename: join(config.buildFolder, 'workers', name === 'gathering' ? 'gathering.js' : 'citing.js'),
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

let here: ((task: object) => unknown) | undefined;

/** Has what is printed and written done where it is asked for, in a thread that is apart already. */
export const workHere = <Task extends object>(work: (task: Task) => unknown): void =>
  void (here = work as (task: object) => unknown);

/** Carries out a task of one of the threads. */
const run = async (name: PoolName, task: object): Promise<unknown> =>
  here ? here(task) : pool(name).run(task);

/** Gathers a list in the thread for it; given up, with a Refusal, when it is no longer wanted. */
export async function gather(task: GatherTask, unwanted?: AbortSignal): Promise<Uint8Array> {
  let made: Gathered;
  try {
    made = (await pool('gathering').run(task, unwanted && { signal: unwanted })) as Gathered;
  } catch (error) {
    if (unwanted?.aborted) throw new Refusal(499, 'The list is not wanted any more.');
    throw error;
  }
  if (made instanceof Uint8Array) return made;
  const { status, message, details, code } = made.refused;
  throw new Refusal(status, message, details, code);
}

const reading = new Map<string, Readers>();

function readersHere(): Readers {
  let made = reading.get(config.buildFolder);
  if (!made)
    reading.set(config.buildFolder, (made = readers(join(config.buildFolder, 'workers', 'reading.js'))));
  return made;
}

/** Reads in a process of its own, with bounded memory and time. Refuses with words for the person. */
export async function read<T extends ReadTask>(
  task: T,
  cancelled?: AbortSignal,
): Promise<Results[T['task']]> {
  try {
    return await readersHere().read(task, cancelled);
  } catch (error) {
    if (cancelled?.aborted) throw new Refusal(499, 'The capture was cancelled.');
    if (error instanceof Unreadable) throw new Refusal(422, error.message);
    throw error;
  }
}

type Printed<W> = W extends 'list'
  ? PrintedList
  : W extends 'each'
    ? PrintedReference[]
    : W extends 'citations'
      ? Run[][]
      : W extends 'text'
        ? TextPrinted
        : W extends 'traced'
          ? TracedPrint
          : W extends 'told'
            ? ToldList
            : Run[];

/** Prints in a worker thread, one request after another. */
export const print = <W extends PrintTask['what']>(task: PrintTask & { what: W }): Promise<Printed<W>> =>
  run(['list', 'citations', 'text', 'told'].includes(task.what) ? 'lists' : 'citing', task) as Promise<
    Printed<W>
  >;

/** Writes records in a file format. */
export const write = (format: FormatName, records: WriteItem[]): Promise<WriteResult> =>
  run('lists', { what: 'write', format, records } satisfies WriteTask) as Promise<WriteResult>;

export type { Asked, TextPrinted };

/** What a style makes of a type, read from the style itself. */
export const asks = (style: string, styleFile: string, type: CslType): Promise<Asked> =>
  run('citing', { what: 'asks', style, styleFile, type } satisfies AsksTask) as Promise<Asked>;

/** The terms of a language, from its locale. */
export const terms = (localeFile: string): Promise<ListTerms> =>
  run('citing', { what: 'terms', localeFile } satisfies TermsTask) as Promise<ListTerms>;

/** Longest a style that a person brings is tried, in milliseconds, and styles one after the other. */
const STYLE_MS = 20_000;
const styles = new PQueue({ concurrency: 1 });

/** Reads a style a person brings, beside everything that is printed meanwhile. Refuses one that takes too long. */
export async function readStyle(xml: string, localeFile: string): Promise<ReadStyle> {
  const read = () => {
    const late = AbortSignal.timeout(STYLE_MS);
    const task = { what: 'style', xml, localeFile } satisfies StyleTask;
    return (pool('styles').run(task, { signal: late }) as Promise<ReadStyle>).catch((error: unknown) => {
      if (!late.aborted) throw error;
      throw new Refusal(422, 'The style takes too long to try. It was not taken.');
    });
  };
  return (await styles.add(read)) as ReadStyle;
}

/** Longest a manuscript is read or printed, in milliseconds, and manuscripts one after the other. */
const MANUSCRIPT_MS = 120_000;
const manuscripts = new PQueue({ concurrency: 1 });

/** Reads or prints a manuscript, beside everything that is printed meanwhile. Refuses one that cannot be read, or takes too long. */
export async function manuscript<T extends KeysTask | ManuscriptTask | TemplateTask>(
  task: T,
): Promise<T extends KeysTask ? string[] : T extends TemplateTask ? Uint8Array : ManuscriptOut> {
  const work = () => {
    const late = AbortSignal.timeout(MANUSCRIPT_MS);
    return (pool('manuscripts').run(task, { signal: late }) as Promise<object>).catch((error: unknown) => {
      if (!late.aborted) throw error;
      throw new Refusal(422, 'The manuscript takes too long to read. Nothing came of it.');
    });
  };
  const done = (await manuscripts.add(work))!;
  if ('unreadable' in done) throw new Refusal(422, (done as UnreadableFile).unreadable);
  return done as never;
}

/** Ends the worker threads and the processes that read. */
export async function closePools(): Promise<void> {
  await Promise.all([
    ...[...pools.values()].map((p) => p.destroy()),
    ...[...reading.values()].map((r) => r.close()),
  ]);
  pools.clear();
  reading.clear();
}
