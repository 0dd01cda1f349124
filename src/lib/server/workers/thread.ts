import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { config } from '../config';

/** A thread of its own for one long piece of work, which is asked one thing after the other and may say more than its answer. */
export interface Thread<Question, Message> {
  /** Asks, and waits for what is meant: the thread may say other things before, and end instead. */
  ask<T>(question: Question, heard: (message: Message) => T | undefined): Promise<T>;
  /** Ends the thread, whatever it is doing. */
  end(): Promise<void>;
}

/** Starts a thread of a file of `build/workers`, with at most so many megabytes. */
export function startThread<Question, Message>(file: string, megabytes: number): Thread<Question, Message> {
  const thread = new Worker(join(config.buildFolder, 'workers', file), {
    resourceLimits: { maxOldGenerationSizeMb: megabytes },
  });
  const ended = new Promise<never>((_resolve, reject) => {
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error(`The thread ${file} has ended.`)));
  });
  // Who waits for an answer is told; when nobody does, it is no news.
  ended.catch(() => undefined);
  return {
    ask<T>(question: Question, heard: (message: Message) => T | undefined) {
      let listens: ((message: Message) => void) | undefined;
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
    },
    end: async () => void (await thread.terminate()),
  };
}
