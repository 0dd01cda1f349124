import { AsyncLocalStorage } from 'node:async_hooks';
import { EventEmitter } from 'node:events';

/** Told to open pages: something in a library changed, or a job moved on. */
export type LiveEvent =
  | { kind: 'changed' }
  | {
      kind: 'job';
      job: { id: string; kind: string; state: string; step?: string; done?: number; total?: number };
    };

const bus = new EventEmitter();
bus.setMaxListeners(1_000);

/** Libraries in which something is changed by work that is not kept yet. */
const unkept = new AsyncLocalStorage<{ open: boolean; libraries: Set<string> }>();

/** Tells every open page of a library. Within `whenKept`, that something changed is told once, when it is kept. */
export function tell(libraryId: string, event: LiveEvent): void {
  const waiting = unkept.getStore();
  if (event.kind === 'changed' && waiting?.open) waiting.libraries.add(libraryId);
  else bus.emit(libraryId, event);
}

/**
 * Runs work whose changes are seen by others only when it has ended well: pages are told then, since a page that looked
 * earlier would see what was before and not look again. Nothing is told of work that fails.
 */
export async function whenKept<T>(work: () => Promise<T>): Promise<T> {
  const waiting = { open: true, libraries: new Set<string>() };
  try {
    const result = await unkept.run(waiting, work);
    for (const libraryId of waiting.libraries) bus.emit(libraryId, { kind: 'changed' } satisfies LiveEvent);
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
