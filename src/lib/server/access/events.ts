import { AsyncLocalStorage } from 'node:async_hooks';
import { EventEmitter } from 'node:events';

/** What a change can be of: what pages that show it depend on. */
export const TOPICS = [
  'sources',
  'passages',
  'notes',
  'leads',
  'tasks',
  'tags',
  'people',
  'projects',
  'drafts',
  'duplicates',
  'presets',
  'queries',
  'styles',
  'jobs',
  'members',
  'choices',
  'votes',
] as const;
export type Topic = (typeof TOPICS)[number];

/** Told to open pages: something in a library changed, or a job moved on. */
export type LiveEvent =
  | {
      kind: 'changed';
      of: Topic[];
      /** The page whose request it came of; that one knows already. */
      by?: string;
    }
  | {
      kind: 'here';
      /** A source, and ids of the people who look at it now. */
      source: string;
      people: string[];
    }
  | {
      kind: 'job';
      job: { id: string; kind: string; state: string; step?: string; done?: number; total?: number };
    };

const bus = new EventEmitter();
bus.setMaxListeners(1_000);

/** What a request changed so far, and the page it came from, for as long as it is being answered. */
interface Asked {
  page: string | undefined;
  changed: Set<Topic>;
  open: boolean;
}
const asked = new AsyncLocalStorage<Asked>();

/** Answers a request and gives, with the answer, what it changed. */
export async function answering<T>(
  page: string | undefined,
  work: () => Promise<T>,
): Promise<{ answer: T; changed: Topic[] }> {
  const request: Asked = { page, changed: new Set(), open: true };
  try {
    const answer = await asked.run(request, work);
    return { answer, changed: [...request.changed] };
  } finally {
    // What the request left running goes on telling everyone.
    request.open = false;
  }
}

/** Topics changed by work that is not kept yet, by library. */
const unkept = new AsyncLocalStorage<{ open: boolean; libraries: Map<string, Set<Topic>> }>();

function emit(libraryId: string, of: Iterable<Topic>): void {
  const request = asked.getStore();
  const topics = [...new Set(of)];
  if (request?.open) for (const topic of topics) request.changed.add(topic);
  bus.emit(libraryId, {
    kind: 'changed',
    of: topics,
    ...(request?.open && request.page ? { by: request.page } : {}),
  } satisfies LiveEvent);
}

/** Tells every open page of a library what changed. Within `whenKept` it is told once, when it is kept. */
export function tell(libraryId: string, ...of: Topic[]): void {
  const waiting = unkept.getStore();
  if (!waiting?.open) return emit(libraryId, of);
  const topics = waiting.libraries.get(libraryId) ?? new Set();
  for (const topic of of) topics.add(topic);
  waiting.libraries.set(libraryId, topics);
}

/** Tells every open page of a library how far a job is. */
export function tellJob(libraryId: string, job: Extract<LiveEvent, { kind: 'job' }>['job']): void {
  bus.emit(libraryId, { kind: 'job', job } satisfies LiveEvent);
}

/** Tells every open page of a library who looks at a source now. */
export function tellHere(libraryId: string, source: string, people: string[]): void {
  bus.emit(libraryId, { kind: 'here', source, people } satisfies LiveEvent);
}

/**
 * Runs work whose changes are seen by others only when it has ended well: pages are told then, since a page that looked
 * earlier would see what was before and not look again. Nothing is told of work that fails.
 */
export async function whenKept<T>(work: () => Promise<T>): Promise<T> {
  const waiting = { open: true, libraries: new Map<string, Set<Topic>>() };
  try {
    const result = await unkept.run(waiting, work);
    for (const [libraryId, topics] of waiting.libraries) emit(libraryId, topics);
    return result;
  } finally {
    // What the work left running goes on telling by itself.
    waiting.open = false;
  }
}

/** Listens to a library; gives the function that stops listening. */
export function listen(libraryId: string, hear: (event: LiveEvent) => void): () => void {
  bus.on(libraryId, hear);
  return () => bus.off(libraryId, hear);
}

const going = new EventEmitter();
going.setMaxListeners(1_000);

/** Ends what somebody's pages listen to: they left, or signed out. Pages that may still listen begin anew. */
export const endConnections = (personId: string): void => void going.emit(personId);

/** Calls when what somebody listens to is ended; gives the function that stops waiting for it. */
export function whenEnded(personId: string, end: () => void): () => void {
  going.on(personId, end);
  return () => going.off(personId, end);
}
