import { inParts } from '../db/ids';
import type { Context } from '../access/context';

/** One thing an import did: a source it added, or a revision and an alias it made of one that was there. */
export interface ImportStep {
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

/** Notes what an import did. Call in the transaction that does it. */
export async function noteSteps(ctx: Context, jobId: string, steps: ImportStep[]): Promise<void> {
  const rows = steps.map(({ sourceId, revisionId, alias, merged }) => ({
    job_id: jobId,
    source_id: sourceId,
    revision_id: merged ? (revisionId ?? UNCHANGED) : null,
    alias: alias ?? null,
  }));
  for (const part of inParts(rows)) await ctx.db('import_step').insert(part);
}

/** The last things an import did, latest first, at most `most`. */
export async function lastSteps(
  ctx: Context,
  jobId: string,
  most: number,
): Promise<(ImportStep & { id: number })[]> {
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

/** Forgets what an import did: it is kept, or taken back. */
export async function forgetSteps(ctx: Context, jobId: string, ids?: number[]): Promise<void> {
  const query = ctx.db('import_step').where({ job_id: jobId });
  if (ids) void query.whereIn('id', ids);
  await query.delete();
}
