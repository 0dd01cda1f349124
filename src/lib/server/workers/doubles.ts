import type { Found } from '../../core/duplicates';
import type { FromDoubles, ToDoubles } from './doubles.worker';
import { startThread } from './thread';

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
  const thread = startThread<ToDoubles, FromDoubles>('doubles.js', MEGABYTES);
  return {
    add: (rows) => thread.ask({ rows }, (message) => ('taken' in message ? message.taken : undefined)),
    found: (told) =>
      thread.ask({ all: true }, (message) => {
        if ('looked' in message) told(message.looked);
        return 'found' in message ? message.found : undefined;
      }),
    end: () => thread.end(),
  };
}
