import { scoped, type Context } from '../access/context';

/** Keeps what a capture gathered while it waits for the person's answer. Files it names are in the store. */
export async function hold(ctx: Context, jobId: string, content: unknown): Promise<void> {
  await ctx
    .db('hold')
    .insert({ job_id: jobId, library_id: ctx.libraryId, content: JSON.stringify(content) })
    .onConflict('job_id')
    .merge();
}

/** What is held for a capture, or nothing. */
export async function held<T>(ctx: Context, jobId: string): Promise<T | undefined> {
  const row = (await scoped<{ job_id: string; content: string }>(ctx, 'hold')
    .where({ job_id: jobId })
    .first('content')) as { content: string } | undefined;
  return row && (JSON.parse(row.content) as T);
}

/** Lets go of what is held; says whether anything was, so that one answer is taken and no second. */
export async function letGo(ctx: Context, jobId: string): Promise<boolean> {
  return (await scoped(ctx, 'hold').where({ job_id: jobId }).delete()) > 0;
}
