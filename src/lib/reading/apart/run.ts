import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import PQueue from 'p-queue';

/** Why work done apart came to no end of its own. */
export type Ending = 'late' | 'memory' | 'crashed';

/** A child process ended in the middle of a task. */
export class EndedApart extends Error {
  constructor(
    readonly why: Ending,
    readonly signal: NodeJS.Signals,
  ) {
    super(`the process that read it was ended: ${why} (${signal})`);
    this.name = 'EndedApart';
  }
}

/** The signal by which a process ends that worked on a task for longer than it may. */
export const WORKED_OUT = 'SIGXCPU';

/** What a parent sends to a child, and what comes back. `ms` is how long the child may work on it. */
export interface Given {
  id: number;
  task: unknown;
  ms: number;
}
export interface Answered {
  id: number;
  result?: unknown;
  /** Message of what went wrong inside. */
  failed?: string;
  /** Resident memory of the child when it was done, in bytes. */
  resident: number;
}

export interface ApartOptions {
  /** How many processes there are at most. */
  processes: number;
  /** Most resident memory of a process; one that goes over it is ended. */
  megabytes: number;
  /** How long a process that has nothing to do is kept, in milliseconds. */
  idleMs?: number;
}

export interface Apart {
  /**
   * Carries a task out in a process of its own; tasks wait for each other. `ms` is how long the process may work on it, as
   * time of its processor: neither what it waits for its turn nor what the machine gives to others meanwhile counts.
   * Throws EndedApart when the process was ended, the reason of `signal` when it was aborted.
   */
  run(task: unknown, given: { ms: number; signal?: AbortSignal }): Promise<unknown>;
  /** Ends the processes; what they were doing fails. */
  close(): Promise<void>;
}

interface Child {
  process: ChildProcess;
  busy: boolean;
  idle?: NodeJS.Timeout;
}

/** A task that has not ended so much later, in milliseconds, than a slow machine lets it is not at work any more. */
const STALLED = 600_000;

let counted = 0;

/**
 * Child processes that carry tasks out, one each at a time. A process isolates what a thread does not: native code that
 * crashes, and memory outside of the heap. `entry` is the file the processes run; it calls `serve`.
 */
export function apart(entry: string, { processes, megabytes, idleMs = 120_000 }: ApartOptions): Apart {
  const queue = new PQueue({ concurrency: processes });
  const children = new Set<Child>();

  function start(): Child {
    const made = fork(entry, [String(megabytes), String(process.pid)], {
      serialization: 'advanced',
      execArgv: [`--max-old-space-size=${Math.round(megabytes * 0.8)}`],
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const child: Child = { process: made, busy: false };
    children.add(child);
    made.once('exit', () => {
      clearTimeout(child.idle);
      children.delete(child);
    });
    // What goes wrong with the channel ends the process, which is seen there.
    made.on('error', () => made.kill('SIGKILL'));
    return child;
  }

  function rest(child: Child, resident: number): void {
    child.busy = false;
    // Memory that was taken for something large does not come back to the system by itself.
    if (resident > (megabytes * 1024 * 1024) / 2) return dismiss(child);
    child.idle = setTimeout(() => dismiss(child), idleMs);
    child.idle.unref();
  }

  /** Ends a process that has nothing to do; it is given no task from now on. */
  function dismiss(child: Child): void {
    children.delete(child);
    child.process.kill('SIGKILL');
  }

  function begin(task: unknown, ms: number, signal?: AbortSignal): Promise<unknown> {
    const child = [...children].find((c) => !c.busy && c.process.connected) ?? start();
    child.busy = true;
    clearTimeout(child.idle);
    const { process: worker } = child;
    const id = ++counted;
    return new Promise((resolve, reject) => {
      let late = false;
      const timer = setTimeout(
        () => {
          late = true;
          worker.kill('SIGKILL');
        },
        ms * 4 + STALLED,
      );
      const abort = () => worker.kill('SIGKILL');
      signal?.addEventListener('abort', abort);
      const settle = () => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', abort);
        worker.off('message', answered);
        worker.off('exit', ended);
      };
      const answered = (answer: Answered) => {
        if (answer.id !== id) return;
        settle();
        rest(child, answer.resident);
        if (answer.failed === undefined) resolve(answer.result);
        else reject(new Error(answer.failed));
      };
      const ended = (code: number | null, by: NodeJS.Signals | null) => {
        settle();
        if (signal?.aborted) return reject(signal.reason as Error);
        if (by === null) return reject(new Error(`a process that reads ended by itself (${code})`));
        // A process is ended by this signal for its memory only: by its own watch, or by the system's;
        // and a heap that is full ends by an abort.
        const memory = by === 'SIGKILL' || by === 'SIGABRT';
        reject(new EndedApart(late || by === WORKED_OUT ? 'late' : memory ? 'memory' : 'crashed', by));
      };
      worker.on('message', answered);
      worker.once('exit', ended);
      worker.send({ id, task, ms } satisfies Given, (error) => error && worker.kill('SIGKILL'));
    });
  }

  return {
    run: async (task, { ms, signal }) => {
      signal?.throwIfAborted();
      return queue.add(
        () => {
          signal?.throwIfAborted();
          return begin(task, ms, signal);
        },
        signal ? { signal } : {},
      );
    },
    close: async () => {
      queue.clear();
      await Promise.all([...children].map(end));
    },
  };
}

async function end({ process: child }: Child): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
}
