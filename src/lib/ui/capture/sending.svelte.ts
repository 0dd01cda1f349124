import { looksLikeReference, splitReferences } from '$lib/core/leads';
import { recogniseLines } from '$lib/core/source';
import { ApiError, call } from '../frame/client';
import {
  allWaiting,
  dropWaiting,
  keepWaiting,
  noteTrouble,
  whoHere,
  type Waiting,
  type WaitingWhat,
} from './waiting';

/** What waits in this browser, as far as this page knows; other pages tell when that changes. */
export const waits = $state<{ all: Waiting[] }>({ all: [] });

/** What is said of what waits. */
export const WAITS = 'The server is not reached. It waits in this browser, and is sent when it is.';

const CHANNEL = 'retexa-waiting';
let channel: BroadcastChannel | undefined;

/** Looks again at what waits. */
async function lookAgain(): Promise<void> {
  waits.all = await allWaiting().catch(() => []);
}

/** Follows what waits, in this page and others; gives the function that stops. */
export function followWaiting(): () => void {
  channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = () => void lookAgain();
  void lookAgain();
  return () => {
    channel?.close();
    channel = undefined;
  };
}

async function changed(): Promise<void> {
  await lookAgain();
  channel?.postMessage('changed');
}

/** Throws something away that waits. */
export async function throwAway(id: string): Promise<void> {
  await dropWaiting(id);
  await changed();
}

/** Whether a call failed since the server was not reached. */
export const isUnreached = (error: unknown): boolean => error instanceof ApiError && error.status === 0;

/**
 * Keeps a capture in this browser until the server is reached; gives whether it is kept. Several addresses, one a line, are one each, so
 * that each is sent once.
 */
export async function waitFor(what: WaitingWhat): Promise<boolean> {
  const lines =
    what.kind === 'capture' && recogniseLines(what.body.text)
      ? what.body.text
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean)
      : undefined;
  const parts: WaitingWhat[] =
    what.kind === 'capture' && lines
      ? lines.map((text) => ({ kind: 'capture', body: { ...what.body, text } }))
      : [what];
  try {
    // As it would be sent: what a page works with is no plain data, which is all that a browser keeps.
    const plainly = <T>(said: T): T => JSON.parse(JSON.stringify(said)) as T;
    for (const part of parts) {
      const plain =
        part.kind === 'file' ? { ...part, into: plainly(part.into) } : { ...part, body: plainly(part.body) };
      if (!(await keepWaiting(plain as WaitingWhat))) return false;
    }
    await changed();
    return true;
  } catch {
    // A browser that keeps nothing: what was typed stays where it is.
    return false;
  }
}

/** Sends one; what is no address and no number is kept as a lead or as a thought, so that nothing is lost. */
async function send({ id, what }: Waiting): Promise<void> {
  if (what.kind === 'note') return call('POST', '/api/notes', what.body, id);
  if (what.kind === 'file') {
    const where = encodeURIComponent(JSON.stringify(what.into));
    const name = encodeURIComponent(what.name);
    return call('POST', `/api/captures/file?name=${name}&into=${where}`, what.file, id);
  }
  try {
    await call('POST', '/api/captures', what.body, id);
  } catch (error) {
    const code = error instanceof ApiError ? error.code : '';
    const { text, projectId } = what.body as { text: string; projectId?: string };
    if (code === 'is-reference' || (code === 'is-text' && splitReferences(text).some(looksLikeReference)))
      await call('POST', '/api/leads', { text, projectId: projectId ?? null, metIn: null }, id);
    else if (code === 'is-text')
      await call('POST', '/api/notes', { body: text, projectId: projectId ?? null, sourceId: null }, id);
    else throw error;
  }
}

/** Answers after which it is tried again another time: not reached, signed out, too often at once. */
const LATER: ReadonlySet<number> = new Set([0, 401, 429]);

/**
 * Sends what waits for the library that is open, one after the other, in one page of the browser only. Gives how many were sent. It ends
 * where the server is not reached, or nobody is signed in; what is refused stays, with why.
 */
export async function sendWaiting(): Promise<number> {
  const sendAll = async () => {
    let sent = 0;
    const who = await whoHere();
    for (const one of await allWaiting()) {
      if (one.trouble || one.library !== who?.library) continue;
      try {
        await send(one);
      } catch (error) {
        if (!(error instanceof ApiError) || LATER.has(error.status) || error.status >= 500) break;
        if (error.code !== 'sent-before') {
          await noteTrouble(one, error.message);
          continue;
        }
      }
      await dropWaiting(one.id);
      sent++;
    }
    return sent;
  };
  const sent = (await navigator.locks?.request(CHANNEL, sendAll)) ?? 0;
  await changed();
  return sent;
}
