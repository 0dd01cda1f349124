import type { Made } from '$lib/server/many';
import { ApiError, call, takenOut } from './client';
import { ended } from './many';

export interface Toast {
  id: number;
  text: string;
  details: string[];
  tone: 'done' | 'trouble';
  undo?: () => Promise<void>;
}

let next = 1;

/** What is being said at the foot of the page. Sayings with an undo stay longer. */
export const toasts = $state<Toast[]>([]);

export function put(id: number): void {
  const at = toasts.findIndex((t) => t.id === id);
  if (at !== -1) toasts.splice(at, 1);
}

function say(toast: Omit<Toast, 'id'>): void {
  const id = next++;
  toasts.push({ id, ...toast });
  while (toasts.length > 3) toasts.shift();
  setTimeout(() => put(id), toast.tone === 'trouble' ? 12_000 : toast.undo ? 9_000 : 4_000);
}

/** Takes something back; gives what does it again, where that can be. */
type TakeBack = () => Promise<TakeBack | undefined>;

interface Doing {
  text: string;
  back: TakeBack;
}

/** What was done in this view and can be taken back, latest last; and what was taken back and can be done again. */
let past = $state.raw<Doing[]>([]);
let future = $state.raw<Doing[]>([]);

/** What takes back what was made of sources, at once or by a job; that makes something too, which can be taken back in turn. */
function takingBack(made: Made): TakeBack | undefined {
  if (!('job' in made))
    return made.revisions.length
      ? async () => takingBack(await call<Made>('POST', '/api/undo', { revisions: made.revisions }))
      : undefined;
  return async () => {
    const back = await call<{ job: string }>('POST', `/api/jobs/${made.job}`, { act: 'take-back' });
    await ended(back.job);
    return takingBack(back);
  };
}

/** Says it, and keeps how to take it back for the toast and for the key. */
function sayWithBack(text: string, back: TakeBack): void {
  const doing = { text, back };
  [past, future] = [[...past, doing].slice(-50), []];
  say({ text, details: [], tone: 'done', undo: () => undoThis(doing) });
}

async function undoThis(doing: Doing): Promise<void> {
  past = past.filter((d) => d !== doing);
  const again = await doing.back();
  if (again) future = [...future, { text: doing.text, back: again }];
}

/** Takes back the last of what was done in this view; nothing where there is nothing. */
export const undoLast = (): (() => Promise<void>) | undefined => {
  const last = past.at(-1);
  return (
    last &&
    (async () => {
      await attempt(() => undoThis(last));
      say({ text: `Undone: ${last.text}`, details: [], tone: 'done' });
    })
  );
};

/** Does again the last of what was taken back. */
export const redoLast = (): (() => Promise<void>) | undefined => {
  const last = future.at(-1);
  return (
    last &&
    (async () => {
      future = future.filter((d) => d !== last);
      const back = await attempt(last.back);
      if (back) past = [...past, { text: last.text, back }];
      say({ text: `Done again: ${last.text}`, details: [], tone: 'done' });
    })
  );
};

/** Forgets what was done in a view that was left. */
export const forgetDone = (): void => void ([past, future] = [[], []]);

/** Says that something was done; with `revisions`, it can be undone from there. */
export function done(text: string, revisions: (string | undefined)[] = []): void {
  const back = takingBack({ revisions: revisions.filter((r): r is string => Boolean(r)) });
  if (back) sayWithBack(text, back);
  else say({ text, details: [], tone: 'done' });
}

/** What is said where a change of many changed none of them. */
const NOTHING = 'There was nothing to change.';

/**
 * Says what was done with many, in words for how many were changed, how many not, and which were left alone as somebody changed
 * them, with the way back: at once, or when the job that does it has ended.
 */
export async function doneWith(
  made: Made,
  of: number,
  words: (changed: number, left: number, stays: string[]) => string,
): Promise<void> {
  const came =
    'job' in made
      ? await attempt(() => ended(made.job))
      : { changed: made.revisions.length, stays: made.stays };
  if (!came) return;
  const { changed, stays = [] } = came;
  const back = changed > 0 && takingBack(made);
  if (back) sayWithBack(words(changed, of - changed, stays), back);
  else say({ text: stays.length ? words(0, of, stays) : NOTHING, details: [], tone: 'done' });
}

/** Says that something was done that `undo` takes back. */
export function doneWithUndo(text: string, undo: () => Promise<unknown>): void {
  sayWithBack(text, async () => void (await undo()));
}

/** What takes a change back, for the same address; nothing where it cannot be. */
interface Backed {
  back?: unknown;
}

const throughBack =
  (path: string, body: unknown): TakeBack =>
  async () => {
    const { back } = await call<Backed>('POST', path, body);
    return back === undefined ? undefined : throughBack(path, back);
  };

/**
 * Makes a change whose answer says what takes it back, and says what was done, so that it can be undone and done again. `said`
 * gives the words for an answer; without any, nothing is said.
 */
export async function change<T extends Backed>(
  path: string,
  body: unknown,
  said: string | ((made: T) => string | undefined),
): Promise<T | undefined> {
  const made = await attempt(() => call<T>('POST', path, body));
  const text = made && (typeof said === 'string' ? said : said(made));
  if (text && made?.back !== undefined) sayWithBack(text, throughBack(path, made.back));
  else if (text) done(text);
  return made;
}

/** Says what went wrong. */
export function trouble(error: unknown): void {
  if (error instanceof ApiError) say({ text: error.message, details: error.details, tone: 'trouble' });
  else
    say({
      text: 'Something went wrong on this page. Reload it and try again.',
      details: [String(error)],
      tone: 'trouble',
    });
}

/** Runs an action and says what went wrong, if anything; gives its value or nothing. */
export async function attempt<T>(action: () => Promise<T>): Promise<T | undefined> {
  try {
    return await action();
  } catch (error) {
    trouble(error);
    return undefined;
  }
}

takenOut.tell = () =>
  say({
    text: 'Characters that cannot be shown were taken out of what you typed or pasted.',
    details: [],
    tone: 'trouble',
  });
