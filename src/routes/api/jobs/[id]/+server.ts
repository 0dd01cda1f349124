import { z } from 'zod';
import { tell } from '$lib/server/events';
import { Refusal } from '$lib/server/refusal';
import { getJob, updateJob } from '$lib/server/repositories/jobs';
import { cancelCapture, retryCapture } from '$lib/server/services/capture';
import { takeImportBack } from '$lib/server/services/references';
import { answer, idOf } from '../../../answer';

/** What a person does to a job: try again, stop, put away, take back what an import added. */
export const POST = answer(
  z.object({ act: z.enum(['retry', 'cancel', 'dismiss', 'take-back']) }),
  async ({ act }, ctx, event) => {
    const id = idOf(event);
    if (act === 'retry') return retryCapture(ctx, id);
    const job = await getJob(ctx, id);
    if (act === 'cancel') return cancelCapture(job.id);
    if (act === 'take-back') return { revisions: await takeImportBack(ctx, job) };
    if (job.state === 'running' || job.state === 'waiting') throw new Refusal(409, 'This is still going on.');
    await updateJob(ctx, id, { state: 'dismissed' });
    tell(ctx.libraryId, { kind: 'changed' });
  },
);
