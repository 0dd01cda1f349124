import { Unreadable } from '../failure';
import { apart, EndedApart, type Apart } from './run';
import type { ReadTask, Results, Unread } from './tasks';

export type { ReadTask, Results } from './tasks';

/**
 * What waits for what: each room has processes of its own, so that a large file or a slow page never keeps a registry's
 * small answer waiting. A room counts the memory of one process in megabytes.
 */
const ROOMS = {
  pages: { processes: 2, megabytes: 768 },
  files: { processes: 1, megabytes: 1_280 },
  answers: { processes: 1, megabytes: 512 },
  documents: { processes: 1, megabytes: 900 },
  drawing: { processes: 1, megabytes: 700 },
} as const;

interface Bound {
  room: keyof typeof ROOMS;
  /** Most time of the processor, in milliseconds. */
  ms: number;
  /** What the person is told when it takes longer, or more memory than there is, or ends the process that reads it. */
  unread: string;
}

/** Where each task is done, and how long a process may work on it. */
const BOUNDS: Record<ReadTask['task'], Bound> = {
  page: {
    room: 'pages',
    ms: 20_000,
    unread:
      'The page is built in a way that takes too long to read. Start by hand with its address filled in.',
  },
  file: {
    room: 'files',
    ms: 300_000,
    unread: 'The file takes too long to read. Cut it into smaller files and import them one after another.',
  },
  linked: { room: 'answers', ms: 10_000, unread: 'The citation file takes too long to read.' },
  leads: { room: 'answers', ms: 20_000, unread: 'The text takes too long to read. Paste it in parts.' },
  listed: { room: 'answers', ms: 20_000, unread: 'The list takes too long to read. Paste it in parts.' },
  cited: { room: 'answers', ms: 20_000, unread: 'The text takes too long to read. Paste it in parts.' },
  catalogue: { room: 'answers', ms: 10_000, unread: 'The catalogue’s answer takes too long to read.' },
  pdf: {
    room: 'documents',
    ms: 120_000,
    unread:
      'The PDF is damaged, or takes too long or too much memory to read. Split it and drop the part you cite.',
  },
  scan: {
    room: 'documents',
    ms: 120_000,
    unread: 'The picture is damaged, or its text takes too long to recognise. Save it anew as PNG or JPEG.',
  },
  set: { room: 'documents', ms: 60_000, unread: 'The document takes too long to set for reading.' },
  contents: { room: 'drawing', ms: 30_000, unread: 'The contents of the document take too long to read.' },
  links: { room: 'drawing', ms: 30_000, unread: 'The links of the page take too long to read.' },
  marks: {
    room: 'drawing',
    ms: 120_000,
    unread: 'The marks in the document take too long to read.',
  },
  mark: {
    room: 'documents',
    ms: 120_000,
    unread: 'The PDF takes too long or too much memory to be written anew.',
  },
  'reading copy': {
    room: 'documents',
    ms: 240_000,
    unread: 'The reading copy takes too long or too much memory to make.',
  },
  written: {
    room: 'pages',
    ms: 120_000,
    unread: 'The document takes too long or too much memory to read. Split it and drop the part you cite.',
  },
  cut: {
    room: 'drawing',
    ms: 60_000,
    unread: 'The figure takes too long or too much memory to cut out. Draw a smaller box.',
  },
  drawn: {
    room: 'drawing',
    ms: 60_000,
    unread: 'The figure takes too long or too much memory to write out.',
  },
  draw: {
    room: 'drawing',
    ms: 30_000,
    unread: 'The page is damaged, or takes too long or too much memory to draw.',
  },
};

/** Reads documents in processes of their own. */
export interface Readers {
  /** Throws Unreadable with words for the person; the reason of `cancelled` when it was aborted. */
  read<T extends ReadTask>(task: T, cancelled?: AbortSignal): Promise<Results[T['task']]>;
  close(): Promise<void>;
}

/**
 * Readers whose processes run the built file `entry`. A process is started when it is needed first. `within` bounds every
 * task to so many milliseconds, instead of the time each kind has.
 */
export function readers(entry: string, within?: number): Readers {
  const rooms = new Map<string, Apart>();
  const room = (name: keyof typeof ROOMS) => {
    const made = rooms.get(name) ?? apart(entry, ROOMS[name]);
    rooms.set(name, made);
    return made;
  };
  return {
    async read<T extends ReadTask>(task: T, cancelled?: AbortSignal): Promise<Results[T['task']]> {
      const bound = BOUNDS[task.task];
      const given = { ms: within ?? bound.ms, ...(cancelled ? { signal: cancelled } : {}) };
      const result = (await room(bound.room)
        .run(task, given)
        .catch((error: unknown) => {
          throw error instanceof EndedApart ? new Unreadable(bound.unread) : error;
        })) as Results[T['task']] | Unread;
      if ('unreadable' in result) throw new Unreadable(result.unreadable);
      return result;
    },
    close: async () => {
      await Promise.all([...rooms.values()].map((r) => r.close()));
    },
  };
}
