import { Worker } from 'node:worker_threads';
import { WORKED_OUT, type Answered, type Given } from './run';

/** How often a process looks at its own memory and work, in milliseconds. */
const LOOK = 20;

/**
 * Looks at the memory and the work of the whole process from a thread, which goes on while native code holds the main one, and
 * ends the process when it takes more than it may, or when whoever started it is gone. It is told what a task may take in
 * milliseconds when one begins, and nothing when it ends.
 */
const WATCH = `
const { parentPort, workerData } = require('node:worker_threads');
const { most, parent, workedOut } = workerData;
let since;
let mayTake;
parentPort.on('message', (ms) => {
  mayTake = ms;
  since = process.cpuUsage();
});
setInterval(() => {
  if (mayTake !== undefined) {
    const { user, system } = process.cpuUsage(since);
    if (user + system > mayTake * 1000) process.kill(process.pid, workedOut);
  }
  if (process.memoryUsage.rss() > most || process.ppid !== parent) process.kill(process.pid, 'SIGKILL');
}, ${LOOK});
`;

/** Carries out the tasks a parent sends, one after the other, within the memory it was started with. */
export function serve(carryOut: (task: unknown) => Promise<unknown>): void {
  const [megabytes, parent] = process.argv.slice(2).map(Number);
  const most = megabytes! * 1024 * 1024;
  const watch = new Worker(WATCH, { eval: true, workerData: { most, parent, workedOut: WORKED_OUT } });
  watch.unref();
  process.on('disconnect', () => process.exit());
  // A terminal sends this to the whole group; whoever started the process ends it.
  process.on('SIGINT', () => undefined);
  process.on('message', ({ id, task, ms }: Given) => {
    watch.postMessage(ms);
    const answer = (said: Pick<Answered, 'result' | 'failed'>) => {
      watch.postMessage(undefined);
      process.send!({ id, ...said, resident: process.memoryUsage.rss() } satisfies Answered);
    };
    carryOut(task).then(
      (result) => answer({ result }),
      (error: unknown) => answer({ failed: error instanceof Error ? error.message : String(error) }),
    );
  });
}
