import { change } from '../access/change';
import type { Context } from '../access/context';
import { putAway } from './runner';

export { getJob, openJobs, type Job } from './repository';
export { retryJob, stopJob } from './runner';

/** Puts a job away that has ended; what was held for its answer is let go. */
export const dismissJob = (ctx: Context, id: string): Promise<void> =>
  change(ctx, { right: 'edit', of: ['jobs'] }, (inner) => putAway(inner, id));
