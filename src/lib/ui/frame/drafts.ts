/** How long words that were typed and not kept wait, in milliseconds: a month. */
const WAITS = 30 * 24 * 3600 * 1000;
const PREFIX = 'retexa-draft ';

interface Kept {
  at: number;
  value: unknown;
}

const read = (key: string): Kept | undefined => {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + key) ?? 'null') as Kept | undefined;
  } catch {
    return undefined;
  }
};

/**
 * Words that are typed and not kept yet, by what they are for. They are in the browser until they are kept or thrown away,
 * and are there again when one comes back.
 */
export const drafts = {
  /** What was typed for something before. */
  find: <T>(key: string): T | undefined => (read(key)?.value as T | undefined) ?? undefined,
  keep(key: string, value: unknown): void {
    try {
      localStorage.setItem(PREFIX + key, JSON.stringify({ at: Date.now(), value } satisfies Kept));
    } catch {
      // A full store keeps what it has; what is typed is still on the page.
    }
  },
  drop: (key: string): void => localStorage.removeItem(PREFIX + key),
  /** Lets go of what waited too long. */
  sweep(): void {
    for (const name of Object.keys(localStorage).filter((n) => n.startsWith(PREFIX))) {
      const kept = read(name.slice(PREFIX.length));
      if (!kept || Date.now() - kept.at > WAITS) localStorage.removeItem(name);
    }
  },
};
