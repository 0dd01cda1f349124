import { ApiError, call, takenOut } from './client';

export interface Toast {
  id: number;
  text: string;
  details: string[];
  tone: 'done' | 'trouble';
  undo?: () => Promise<void>;
}

let next = 1;

/** What is being said at the bottom of the page. Sayings with an undo stay longer. */
export const toasts = $state<Toast[]>([]);

export function put(id: number): void {
  const at = toasts.findIndex((t) => t.id === id);
  if (at !== -1) toasts.splice(at, 1);
}

function say(toast: Omit<Toast, 'id'>): void {
  const id = next++;
  toasts.push({ id, ...toast });
  while (toasts.length > 4) toasts.shift();
  setTimeout(() => put(id), toast.tone === 'trouble' ? 12_000 : toast.undo ? 9_000 : 4_000);
}

/** Says that something was done; with `revisions`, it can be undone from there. */
export function done(text: string, revisions: (string | undefined)[] = []): void {
  const made = revisions.filter((r): r is string => Boolean(r));
  say({
    text,
    details: [],
    tone: 'done',
    ...(made.length ? { undo: async () => void (await call('POST', '/api/undo', { revisions: made })) } : {}),
  });
}

/** Says that something was done that `undo` takes back. */
export function doneWithUndo(text: string, undo: () => Promise<unknown>): void {
  say({ text, details: [], tone: 'done', undo: async () => void (await undo()) });
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
