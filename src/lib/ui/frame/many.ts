import type { Job } from '$lib/server/jobs';
import type { ManyResult } from '$lib/server/many';
import { ApiError, call } from './client';
import { heard } from './live.svelte';

/** When a job that changes many has ended: how many it changed. Throws with what is said of it where it did not end well. */
export const ended = (id: string): Promise<ManyResult> =>
  new Promise((resolve, reject) => {
    const look = async () => {
      // The server may be away for a moment: what was missed is told when it is back.
      const job = await call<Job>('GET', `/api/jobs/${id}`).catch(() => undefined);
      if (!job || job.state === 'waiting' || job.state === 'running') return;
      stop();
      if (job.result) resolve(job.result as ManyResult);
      else reject(new ApiError(409, job.error?.message ?? 'It did not end well.', job.error?.details));
    };
    const stop = heard('jobs', () => void look());
    void look();
  });
