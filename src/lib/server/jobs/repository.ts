import { scoped, type Context } from '../access/context';
import { tell } from '../access/events';
import { newId, now } from '../db/ids';
import { notHere } from '../access/refusal';

/**
 * `waiting` for its turn, `running`, `done` (what came of it may be a question, which is answered once), `failed`, or
 * `dismissed`: put away.
 */
export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'dismissed';
export type JobKind = 'capture' | 'import' | 'doubles' | 'recognise' | 'borrowed' | 'many';

/** Long work: what was asked, how far it is, what came of it. */
export interface Job<Input = unknown, Result = unknown, Answer = unknown> {
  id: string;
  kind: JobKind;
  state: JobState;
  input: Input;
  result: Result | null;
  /** What the person answered to what it asked. */
  answer: Answer | null;
  /** How often it was begun since it was asked for; a server that starts again goes on with it once. */
  tries: number;
  error: { message: string; details: string[] } | null;
  created: string;
  updated: string;
}

interface Row {
  id: string;
  kind: JobKind;
  state: JobState;
  input: string;
  result: string | null;
  answer?: string | null;
  tries?: number;
  brief?: string | null;
  error: string | null;
  created: string;
  updated: string;
}

const opened = ({ brief: _said, ...row }: Row): Job => ({
  ...row,
  input: JSON.parse(row.input) as unknown,
  result: row.result ? (JSON.parse(row.result) as unknown) : null,
  answer: row.answer ? (JSON.parse(row.answer) as unknown) : null,
  tries: row.tries ?? 0,
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
    answer: null,
    tries: 0,
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

/**
 * Notes how a job stands; only if it is in the state `from`, where one is given. Says whether it was. `brief` goes with a
 * result that is too long to be said beside every page.
 */
export async function updateJob(
  ctx: Context,
  id: string,
  change: Partial<Pick<Job, 'state' | 'input' | 'result' | 'answer' | 'error' | 'tries'>> & {
    brief?: unknown;
  },
  from?: JobState,
): Promise<boolean> {
  const updated: number = await scoped(ctx, 'job')
    .where({ id, ...(from ? { state: from } : {}) })
    .update({
      ...(change.state ? { state: change.state } : {}),
      ...('result' in change
        ? {
            result: JSON.stringify(change.result),
            brief: change.brief === undefined ? null : JSON.stringify(change.brief),
          }
        : {}),
      ...('input' in change ? { input: JSON.stringify(change.input) } : {}),
      ...('answer' in change
        ? { answer: change.answer === null ? null : JSON.stringify(change.answer) }
        : {}),
      ...('tries' in change ? { tries: change.tries } : {}),
      ...('error' in change ? { error: change.error && JSON.stringify(change.error) } : {}),
      updated: now(),
    });
  tell(ctx.libraryId, 'jobs');
  return updated > 0;
}

/** The jobs the tray shows: not dismissed, newest first, an import's result in brief. */
export async function openJobs(ctx: Context): Promise<Job[]> {
  const rows = (await scoped<Row>(ctx, 'job')
    .whereNot('state', 'dismissed')
    .orderBy('created', 'desc')
    .limit(100)
    .select(
      ...['id', 'kind', 'state', 'input', 'error', 'created', 'updated'],
      ctx.db.raw("CASE WHEN kind IN ('import', 'borrowed') THEN brief ELSE result END AS result"),
    )) as Row[];
  return rows.map(opened);
}

/** The last job of a kind that was begun with an input, whatever became of it. */
export async function lastJobAbout(
  ctx: Context,
  kind: JobKind,
  input: Record<string, string>,
): Promise<Job | undefined> {
  const row = (await scoped<Row>(ctx, 'job')
    .where({ kind, input: JSON.stringify(input) })
    .orderBy('created', 'desc')
    .orderBy('id', 'desc')
    .first()) as Row | undefined;
  return row && opened(row);
}

/** A job with the library and the person it belongs to. */
export interface OwnedJob extends Job {
  libraryId: string;
  personId: string;
}

/** The jobs of all libraries that a server left unfinished when it ended, oldest first. */
export async function unfinishedJobs(db: Context['db']): Promise<OwnedJob[]> {
  const rows = (await db('job').whereIn('state', ['waiting', 'running']).orderBy('created')) as (Row & {
    library_id: string;
    person_id: string;
  })[];
  return rows.map(({ library_id, person_id, ...row }) => ({
    ...opened(row),
    libraryId: library_id,
    personId: person_id,
  }));
}
