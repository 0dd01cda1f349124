import { inParts } from '../db/ids';
import { scoped, type Context } from '../access/context';
import type { JobKind } from './repository';

/** One thing a job did: a source it added, or a revision and an alias it made of what was there. */
export interface Step {
  /** Empty where the revision says of what it is. */
  sourceId: string;
  /** The revision made of a source that was there; nothing for one that was added. */
  revisionId?: string | null;
  alias?: string;
  /** It was there before. */
  merged?: boolean;
}

interface Row {
  id: number;
  job_id: string;
  source_id: string;
  revision_id: string | null;
  alias: string | null;
}

/** What stands for a merge that changed nothing of the record. */
const UNCHANGED = '';

/** Notes what a job did. Call in the transaction that does it. */
export async function noteSteps(ctx: Context, jobId: string, steps: Step[]): Promise<void> {
  const rows = steps.map(({ sourceId, revisionId, alias, merged }) => ({
    job_id: jobId,
    source_id: sourceId,
    revision_id: merged ? (revisionId ?? UNCHANGED) : null,
    alias: alias ?? null,
  }));
  for (const part of inParts(rows)) await ctx.db('import_step').insert(part);
}

/** The last things a job did, latest first, at most `most`. */
export async function lastSteps(
  ctx: Context,
  jobId: string,
  most: number,
): Promise<(Step & { id: number })[]> {
  const rows = (await ctx
    .db('import_step')
    .where({ job_id: jobId })
    .orderBy('id', 'desc')
    .limit(most)) as Row[];
  return rows.map(({ id, source_id, revision_id, alias }) => ({
    id,
    sourceId: source_id,
    merged: revision_id !== null,
    ...(revision_id ? { revisionId: revision_id } : {}),
    ...(alias ? { alias } : {}),
  }));
}

/** Forgets what a job did: it is kept, or taken back. */
export async function forgetSteps(ctx: Context, jobId: string, ids?: number[]): Promise<void> {
  const query = ctx.db('import_step').where({ job_id: jobId });
  if (ids) void query.whereIn('id', ids);
  await query.delete();
}

/** The revisions a job made, the last first. */
export async function revisionsMade(ctx: Context, jobId: string): Promise<string[]> {
  return (await ctx
    .db('import_step')
    .where({ job_id: jobId })
    .whereNotNull('revision_id')
    .orderBy('id', 'desc')
    .pluck('revision_id')) as string[];
}

/** Forgets what was done by all but the last `most` jobs of a kind. */
export async function forgetAllBut(ctx: Context, kind: JobKind, most: number): Promise<void> {
  const old = scoped(ctx, 'job')
    .where({ kind })
    .orderBy('created', 'desc')
    .limit(1_000)
    .offset(most)
    .select('id');
  await ctx.db('import_step').whereIn('job_id', old).delete();
}
