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

/** Tells every open page of a library. */
export function tell(libraryId: string, event: LiveEvent): void {
  bus.emit(libraryId, event);
}

/** Listens to a library; gives the function that stops listening. */
export function listen(libraryId: string, hear: (event: LiveEvent) => void): () => void {
  bus.on(libraryId, hear);
  return () => bus.off(libraryId, hear);
}
