/** Long work under way in this process, by its job. */
const running = new Map<string, { abort: AbortController; settled: Promise<void> }>();

/** Carries out the work of a job, which never throws, and gives it the signal at which it stops. */
export async function underWay(jobId: string, work: (stop: AbortSignal) => Promise<void>): Promise<void> {
  const abort = new AbortController();
  const settled = work(abort.signal);
  running.set(jobId, { abort, settled });
  try {
    await settled;
  } finally {
    running.delete(jobId);
  }
}

/** Stops the work of a job, if it is under way. */
export function stop(jobId: string): void {
  running.get(jobId)?.abort.abort();
}

/** Stops all work under way and waits until it has noted so. */
export async function stopAll(why?: Stopped): Promise<void> {
  const all = [...running.values()];
  for (const { abort } of all) abort.abort(why);
  await Promise.allSettled(all.map((w) => w.settled));
}

/** What is said of work that was stopped: by a person, or by what ended it, in its own words. */
export const stopWords = (signal: AbortSignal, cancelled: string): string =>
  signal.reason instanceof Stopped ? signal.reason.message : cancelled;

/** Why work was stopped, when nobody cancelled it, in words for the person. */
export class Stopped extends Error {}
