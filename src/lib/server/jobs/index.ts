import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { letGo } from './holds';
import { getJob, updateJob } from './repository';

export { getJob, openJobs, type Job } from './repository';

/** Puts a job away that has ended; what was held for its answer is let go. */
export const dismissJob = (ctx: Context, id: string): Promise<void> =>
  change(ctx, { right: 'edit', of: ['jobs'] }, async (inner) => {
    const job = await getJob(inner, id);
    if (job.state === 'running' || job.state === 'waiting') throw new Refusal(409, 'This is still going on.');
    await letGo(inner, id);
    await updateJob(inner, id, { state: 'dismissed' });
  });
