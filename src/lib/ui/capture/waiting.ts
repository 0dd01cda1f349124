import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** What is captured while the server is not reached. */
export type WaitingWhat =
  | { kind: 'capture'; body: Record<string, unknown> & { text: string } }
  | {
      kind: 'note';
      body: { body: string; projectId: string | null; sourceId: string | null } & Record<string, unknown>;
    }
  | { kind: 'file'; name: string; into: Record<string, unknown>; file: Blob };

/** Something that waits in this browser until the server is reached. */
export interface Waiting {
  /** What it is sent as. */
  id: string;
  at: number;
  /** Whose it is, and the library it goes to. */
  person: string;
  library: string;
  what: WaitingWhat;
  /** Why the server did not take it, where it was refused. */
  trouble?: string;
}

interface Store extends DBSchema {
  waiting: { key: string; value: Waiting };
  /** Who is at work in this browser, and in which library; nobody after they signed out. */
  who: { key: 'who'; value: Who };
}
export interface Who {
  person: string;
  library: string;
}

let opened: Promise<IDBPDatabase<Store>> | undefined;
const store = () =>
  (opened ??= openDB<Store>('retexa', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'id' });
      db.createObjectStore('who');
    },
  }));

/** Puts down who is at work, for what is captured while the server is not reached; nobody where somebody signs out. */
export async function noteWho(who: Who | undefined): Promise<void> {
  const db = await store();
  await (who ? db.put('who', who, 'who') : db.delete('who', 'who'));
}

/** Who was at work last in this browser. */
export const whoHere = async (): Promise<Who | undefined> => (await store()).get('who', 'who');

/** Keeps something until it can be sent; gives whether it is kept: nobody’s is not. */
export async function keepWaiting(what: WaitingWhat): Promise<boolean> {
  const who = await whoHere();
  if (!who) return false;
  await (await store()).add('waiting', { id: crypto.randomUUID(), at: Date.now(), ...who, what });
  return true;
}

/** What waits of who is at work, in any library, the oldest first. */
export async function allWaiting(): Promise<Waiting[]> {
  const who = await whoHere();
  const all = await (await store()).getAll('waiting');
  return all.filter(({ person }) => person === who?.person).sort((a, b) => a.at - b.at);
}

/** Lets go of something that waits. */
export const dropWaiting = async (id: string): Promise<void> => (await store()).delete('waiting', id);

/** Notes why something was refused; it stays until the person throws it away. */
export async function noteTrouble(one: Waiting, trouble: string): Promise<void> {
  await (await store()).put('waiting', { ...one, trouble });
}

/** What waits, in a line. */
export const lineOf = ({ what }: Waiting): string =>
  what.kind === 'file' ? what.name : what.kind === 'note' ? what.body.body : what.body.text;
