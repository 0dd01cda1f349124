import PQueue from 'p-queue';
import { checkRight } from '../access/change';
import { contextOf, transaction, type Context } from '../access/context';
import { tell, tellJob, type Topic } from '../access/events';
import { Refusal } from '../access/refusal';
import { log } from '../log';
import { hold, letGo } from './holds';
import { getJob, insertJob, unfinishedJobs, updateJob, type Job, type JobKind } from './repository';

/** How work is carried out: until when, and whom to tell. */
export interface Doing {
  /** Aborted when the person stops it, or the server ends. */
  signal: AbortSignal;
  /** Says how far it is, and stops here when it was stopped. */
  step(words: string, done?: number, total?: number): void;
}

/** What is kept when work has ended well, in one transaction with noting so; gives what came of it. */
export type Keep<Result> = (inner: Context) => Promise<Result>;

/** How work of a kind is carried out. */
export interface Work<Input, Result, Answer> {
  /** How much of it goes on at the same time; the rest waits. A time limit within it counts from when it begins. */
  atOnce: number;
  /** What the person reads when they stopped it, and when it broke. */
  words: { stopped: string; broken: string };
  /**
   * Does it, from its input and from what was answered to its question. It may be begun anew, after `takeBack`, when a
   * server ended in the middle of it.
   */
  run(ctx: Context, job: Job<Input, Result, Answer>, doing: Doing): Promise<Keep<Result>>;
  /** What of a result is said beside every page, where the whole is too long. */
  brief?(result: Result): unknown;
  /** What is held for it is what it is done from, and stays for trying it again. */
  heldForIt?: true;
  /** Takes back what a run that did not end well has kept so far. */
  takeBack?(ctx: Context, jobId: string): Promise<void>;
  /** What it changes, where that is not sources alone. */
  changes?: readonly Topic[];
  /** Lets go of what is kept for beginning it again: it is put away. */
  release?(inner: Context, job: Job<Input, Result, Answer>): Promise<void>;
}

type AnyWork = Work<unknown, unknown, unknown>;

const kinds = new Map<JobKind, { work: AnyWork; queue: PQueue }>();

/** Says how work of a kind is carried out: once, where its room is. */
export function carriesOut<Input, Result, Answer = never>(
  kind: JobKind,
  work: Work<Input, Result, Answer>,
): void {
  kinds.set(kind, { work: work as AnyWork, queue: new PQueue({ concurrency: work.atOnce }) });
}

function kindOf(kind: JobKind): { work: AnyWork; queue: PQueue } {
  const known = kinds.get(kind);
  if (!known) throw new Error(`nobody carries out work of kind ${kind}`);
  return known;
}

/** Why work was stopped, when nobody cancelled it. */
export class Stopped extends Error {}

/** Work under way, by its job. */
const running = new Map<string, { abort: AbortController; settled: Promise<void> }>();

/** How often work is begun before it is given up: a second time when a server ended in the middle of the first. */
const MOST_TRIES = 2;

const CUT_OFF =
  'The server stopped in the middle of this, and again when it went on with it. Nothing was half-saved; try it again.';

function enqueue(ctx: Context, { id, kind }: Job): void {
  const { queue, work } = kindOf(kind);
  void queue.add(async () => {
    const abort = new AbortController();
    const settled = carryOut(ctx, id, work, abort.signal);
    running.set(id, { abort, settled });
    await settled.finally(() => running.delete(id));
  });
}

/** Carries a job out and notes what came of it. Never throws. */
async function carryOut(ctx: Context, id: string, work: AnyWork, signal: AbortSignal): Promise<void> {
  const refuseStopped = () => {
    if (signal.aborted) throw new Refusal(499, work.words.stopped);
  };
  try {
    const job = await getJob(ctx, id);
    const begun = { state: 'running', error: null, tries: job.tries + 1 } as const;
    // It was stopped while it waited.
    if (!(await updateJob(ctx, id, begun, 'waiting'))) return;
    const keep = await work.run(ctx, job, {
      signal,
      step(words, done, total) {
        const far = total ? { done, total } : {};
        tellJob(ctx.libraryId, { id, kind: job.kind, state: 'running', step: words, ...far });
        refuseStopped();
      },
    });
    await transaction(ctx, async (inner) => {
      const result = await keep(inner);
      await updateJob(inner, id, { state: 'done', result, brief: work.brief?.(result) });
    });
  } catch (error) {
    await ended(ctx, id, work, signal, error).catch((err: unknown) =>
      log.error({ job: id, err }, 'job not noted'),
    );
  } finally {
    tell(ctx.libraryId, 'jobs', ...(work.changes ?? ['sources']));
  }
}

/** Notes of work that did not end well why; what the end of the server cut off waits for the next start. */
async function ended(
  ctx: Context,
  id: string,
  work: AnyWork,
  signal: AbortSignal,
  error: unknown,
): Promise<void> {
  if (signal.reason instanceof Stopped) {
    await updateJob(ctx, id, { state: 'waiting', tries: 0 });
    return;
  }
  const refused = error instanceof Refusal;
  if (!refused && !signal.aborted) log.error({ job: id, err: error }, 'a job failed');
  await takeBack(ctx, id, work);
  const message = signal.aborted ? work.words.stopped : refused ? error.message : work.words.broken;
  await fail(ctx, id, message, refused && !signal.aborted ? error.details : []);
}

/** Takes back what a run kept so far. Nobody asks for it, so that it does not matter what they still may. */
const takeBack = (ctx: Context, id: string, work: AnyWork) => work.takeBack?.({ ...ctx, role: 'owner' }, id);

async function fail(
  ctx: Context,
  id: string,
  message: string,
  details: readonly string[] = [],
): Promise<void> {
  const error = { message, details: [...details] };
  await updateJob(ctx, id, { state: 'failed', result: null, answer: null, error });
}

/**
 * Begins work and gives its job at once; the work goes on behind, as soon as others of its kind leave room. What is too long to be
 * said wherever the job is shown is `held` for it.
 */
export async function beginJob(ctx: Context, kind: JobKind, input: unknown, held?: unknown): Promise<Job> {
  checkRight(ctx, 'edit');
  const job = await transaction(ctx, async (inner) => {
    const made = await insertJob(inner, kind, input);
    if (held !== undefined) await hold(inner, made.id, held);
    return made;
  });
  enqueue(ctx, job);
  return job;
}

/** Tries again what failed, from its beginning. */
export async function retryJob(ctx: Context, id: string): Promise<void> {
  checkRight(ctx, 'edit');
  const job = await getJob(ctx, id);
  if (!(await updateJob(ctx, id, { state: 'waiting', error: null, tries: 0 }, 'failed')))
    throw new Refusal(409, 'Only what failed can be tried again.');
  if (!kindOf(job.kind).work.heldForIt) await letGo(ctx, id);
  enqueue(ctx, job);
}

/** Stops work that is under way, or that still waits for its turn. What has ended stays as it is. */
export async function stopJob(ctx: Context, id: string): Promise<void> {
  checkRight(ctx, 'edit');
  const job = await getJob(ctx, id);
  const going = running.get(id);
  if (going) going.abort.abort();
  else if (job.state === 'waiting') await fail(ctx, id, kindOf(job.kind).work.words.stopped);
}

/** Answers what a job asked, once, and goes on with it. Call it when nothing more can refuse the answer. */
export async function answerJob(ctx: Context, id: string, answer: unknown): Promise<void> {
  checkRight(ctx, 'edit');
  const job = await getJob(ctx, id);
  if (!(await updateJob(ctx, id, { state: 'waiting', answer, tries: 0 }, 'done')))
    throw new Refusal(409, 'This waits for no answer any more.');
  enqueue(ctx, job);
}

/** Puts a job away that has ended; what was held for its answer is let go. */
export async function putAway(inner: Context, id: string): Promise<void> {
  const job = await getJob(inner, id);
  if (job.state === 'running' || job.state === 'waiting') throw new Refusal(409, 'This is still going on.');
  await letGo(inner, id);
  await kindOf(job.kind).work.release?.(inner, job);
  await updateJob(inner, id, { state: 'dismissed' });
}

/**
 * Goes on, at start, with the work that the last run of the server left in the middle: what it kept so far is taken back
 * and it is begun anew. What was cut off a second time is ended with a word, since it may be what ended the server.
 * Gives how many jobs there were.
 */
export async function goOn(db: Context['db']): Promise<number> {
  const left = await unfinishedJobs(db);
  for (const { libraryId, personId, ...job } of left) {
    const member = await contextOf(db, libraryId, personId);
    const ctx: Context = member ?? { db, libraryId, personId, role: 'reader' };
    try {
      await takeBack(ctx, job.id, kindOf(job.kind).work);
    } catch (err) {
      // It waits for the next start, since begun anew it would keep the same twice; the others go on.
      log.error({ job: job.id, err }, 'what a job kept is not taken back');
      continue;
    }
    if (!member) await fail(ctx, job.id, 'Whoever began this is no member of the library any more.');
    else if (job.tries >= MOST_TRIES) await fail(ctx, job.id, CUT_OFF);
    else {
      await updateJob(ctx, job.id, { state: 'waiting' });
      enqueue(ctx, job);
    }
  }
  return left.length;
}

/** Stops all work, which waits for the next start of the server, and waits until it has noted so. */
export async function stopAll(): Promise<void> {
  for (const { queue } of kinds.values()) queue.clear();
  const all = [...running.values()];
  for (const { abort } of all) abort.abort(new Stopped());
  await Promise.allSettled(all.map((w) => w.settled));
}
