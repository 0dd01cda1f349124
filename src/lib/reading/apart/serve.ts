import { Worker } from 'node:worker_threads';
import type { Answered, Given } from './run';

/** How often a process looks at its own memory, in milliseconds. */
const LOOK = 20;

/**
 * Looks at the memory of the whole process from a thread, which goes on while native code holds the main one, and ends the
 * process when it takes more than it may, or when whoever started it is gone.
 */
const WATCH = `
const { most, parent } = require('node:worker_threads').workerData;
setInterval(() => {
  if (process.memoryUsage.rss() > most || process.ppid !== parent) process.kill(process.pid, 'SIGKILL');
}, ${LOOK});
`;

/** Carries out the tasks a parent sends, one after the other, within the memory it was started with. */
export function serve(carryOut: (task: unknown) => Promise<unknown>): void {
  const [megabytes, parent] = process.argv.slice(2).map(Number);
  const most = megabytes! * 1024 * 1024;
  new Worker(WATCH, { eval: true, workerData: { most, parent } }).unref();
  process.on('disconnect', () => process.exit());
  // A terminal sends this to the whole group; whoever started the process ends it.
  process.on('SIGINT', () => undefined);
  process.on('message', ({ id, task }: Given) => {
    const answer = (said: Pick<Answered, 'result' | 'failed'>) =>
      process.send!({ id, ...said, resident: process.memoryUsage.rss() } satisfies Answered);
    carryOut(task).then(
      (result) => answer({ result }),
      (error: unknown) => answer({ failed: error instanceof Error ? error.message : String(error) }),
    );
  });
}
