import { fetchOutside, type Fetched, type FetchOptions } from './fetch-outside';

/** The last request to each host; the next waits for it, so that a host is asked one thing at a time. */
const turns = new Map<string, Promise<unknown>>();

/** Longest a busy server is waited for, and how often it is asked again. */
const LONGEST_WAIT_MS = 8_000;
const TRIES = 3;

const rest = (ms: number, signal?: AbortSignal) =>
  new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, ms);
    signal?.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });

async function patiently(address: string, options: FetchOptions): Promise<Fetched> {
  for (let attempt = 1; ; attempt++) {
    const fetched = await fetchOutside(address, options);
    const busy = fetched.status === 429 || fetched.status === 503;
    const wait = Math.max((fetched.retryAfter ?? 0) * 1000, 400 * 2 ** (attempt - 1));
    if (!busy || attempt === TRIES || wait > LONGEST_WAIT_MS || options.signal?.aborted) return fetched;
    await rest(wait, options.signal);
  }
}

/**
 * Fetches from the outside with consideration: one request at a time to a host, a busy server (429, 503) asked again
 * after the time it names, or twice as long each time (RFC 9110, 10.2.3).
 */
export async function fetchPolitely(address: string, options: FetchOptions): Promise<Fetched> {
  const host = URL.canParse(address) ? new URL(address).host : '';
  const before = turns.get(host) ?? Promise.resolve();
  const mine = before.then(() => patiently(address, options));
  const settled = mine.catch(() => undefined);
  turns.set(host, settled);
  void settled.then(() => {
    if (turns.get(host) === settled) turns.delete(host);
  });
  return mine;
}
