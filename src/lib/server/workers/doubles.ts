import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Found } from '../../core/duplicates';
import { config } from '../config';
import type { FromDoubles, ToDoubles } from './doubles.worker';

/** Memory of the thread, for signatures of a hundred thousand sources and the pairs among them. */
const MEGABYTES = 600;

/** A thread that is given the sources of a library and looks through them for works that are there twice. */
export interface Looking {
  /** Takes more of them; gives how many it has. */
  add(rows: { id: string; record: string }[]): Promise<number>;
  /** Looks through all it was given; `told` is called now and then with how many were looked at. */
  found(told: (looked: number) => void): Promise<Found>;
  /** Ends the thread, whatever it is doing. */
  end(): Promise<void>;
}

/** Starts a thread that looks for works that are in a library twice. */
export function looking(): Looking {
  const thread = new Worker(join(config.buildFolder, 'workers', 'doubles.js'), {
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  });
  const ended = new Promise<never>((_resolve, reject) => {
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error('The thread that looks for duplicates has ended.')));
  });
  // Who waits for an answer is told; when nobody does, it is no news.
  ended.catch(() => undefined);
  /** Asks, and waits for what is meant: the thread may say other things before, and end instead. */
  const asked = <T>(question: ToDoubles, heard: (message: FromDoubles) => T | undefined): Promise<T> => {
    let listens: ((message: FromDoubles) => void) | undefined;
    const answer = new Promise<T>((resolve) => {
      thread.on(
        'message',
        (listens = (message) => {
          const found = heard(message);
          if (found !== undefined) resolve(found);
        }),
      );
      thread.postMessage(question);
    });
    return Promise.race([answer, ended]).finally(() => void thread.off('message', listens!));
  };
  return {
    add: (rows) => asked({ rows }, (message) => ('taken' in message ? message.taken : undefined)),
    found: (told) =>
      asked({ all: true }, (message) => {
        if ('looked' in message) told(message.looked);
        return 'found' in message ? message.found : undefined;
      }),
    end: async () => void (await thread.terminate()),
  };
}
