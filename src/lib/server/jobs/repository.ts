import { scoped, type Context } from '../access/context';
import { tell } from '../access/events';
import { newId, now } from '../db/ids';
import { notHere } from '../access/refusal';

export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'dismissed';

/** Long work: what was asked, how far it is, what came of it. */
export interface Job<Input = unknown, Result = unknown> {
  id: string;
  kind: 'capture' | 'import';
  state: JobState;
  input: Input;
  result: Result | null;
  error: { message: string; details: string[] } | null;
  created: string;
  updated: string;
}

interface Row {
  id: string;
  kind: 'capture' | 'import';
  state: JobState;
  input: string;
  result: string | null;
  brief?: string | null;
  error: string | null;
  created: string;
  updated: string;
}

const opened = ({ brief: _said, ...row }: Row): Job => ({
  ...row,
  input: JSON.parse(row.input) as unknown,
  result: row.result ? (JSON.parse(row.result) as unknown) : null,
  error: row.error ? (JSON.parse(row.error) as Job['error']) : null,
});

export async function insertJob(ctx: Context, kind: Job['kind'], input: unknown): Promise<Job> {
  const at = now();
  const job: Job = {
    id: newId(),
    kind,
    state: 'waiting',
    input,
    result: null,
    error: null,
    created: at,
    updated: at,
  };
  await ctx.db('job').insert({
    ...job,
    input: JSON.stringify(input),
    library_id: ctx.libraryId,
    person_id: ctx.personId,
  });
  tell(ctx.libraryId, 'jobs');
  return job;
}

export async function getJob(ctx: Context, id: string): Promise<Job> {
  const row = (await scoped<Row>(ctx, 'job').where({ id }).first()) as Row | undefined;
  if (!row) throw notHere('job');
  return opened(row);
}

/** `brief` goes with a result that is too long to be said beside every page. */
export async function updateJob(
  ctx: Context,
  id: string,
  change: Partial<Pick<Job, 'state' | 'result' | 'error'>> & { brief?: unknown },
): Promise<void> {
  await scoped<Row>(ctx, 'job')
    .where({ id })
    .update({
      ...(change.state ? { state: change.state } : {}),
      ...('result' in change
        ? {
            result: JSON.stringify(change.result),
            brief: change.brief === undefined ? null : JSON.stringify(change.brief),
          }
        : {}),
      ...('error' in change ? { error: change.error && JSON.stringify(change.error) } : {}),
      updated: now(),
    });
  tell(ctx.libraryId, 'jobs');
}

/** The jobs the tray shows: not dismissed, newest first, an import's result in brief. */
export async function openJobs(ctx: Context): Promise<Job[]> {
  const rows = (await scoped<Row>(ctx, 'job')
    .whereNot('state', 'dismissed')
    .orderBy('created', 'desc')
    .limit(100)
    .select(
      ...['id', 'kind', 'state', 'input', 'error', 'created', 'updated'],
      ctx.db.raw("CASE kind WHEN 'import' THEN brief ELSE result END AS result"),
    )) as Row[];
  return rows.map(opened);
}

/** What is said of a job that the end of the server stopped. */
export const STOPPED = 'The server stopped in the middle of this. Nothing was half-saved; try it again.';

/**
 * Ends with a word the jobs that a stopped server left in the middle. Their input is kept, so each can be tried
 * again. Run once at start, over all libraries.
 */
export async function endInterrupted(db: Context['db']): Promise<number> {
  const error = { message: STOPPED, details: [] };
  return db('job')
    .whereIn('state', ['waiting', 'running'])
    .update({ state: 'failed', error: JSON.stringify(error), updated: now() });
}
