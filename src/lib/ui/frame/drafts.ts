/** How long words that were typed and not kept wait, in milliseconds: a month. */
const WAITS = 30 * 24 * 3600 * 1000;
const PREFIX = 'retexa-draft ';

/** Whose words are kept: on a machine that several people sign in at, each has their own. Nobody's name where one works alone. */
let whose = '';
const nameOf = (key: string) => `${PREFIX}${whose}${key}`;

interface Kept {
  at: number;
  value: unknown;
}

const read = (name: string): Kept | undefined => {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') as Kept | undefined;
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
  find: <T>(key: string): T | undefined => (read(nameOf(key))?.value as T | undefined) ?? undefined,
  keep(key: string, value: unknown): void {
    try {
      localStorage.setItem(nameOf(key), JSON.stringify({ at: Date.now(), value } satisfies Kept));
    } catch {
      // A full store keeps what it has; what is typed is still on the page.
    }
  },
  drop: (key: string): void => localStorage.removeItem(nameOf(key)),
  /** Says whose words are kept from now on. */
  of(person: string | undefined): void {
    whose = person ? `${person} ` : '';
  },
  /** Gives what was typed while one worked alone to the person one is from now on. */
  give(person: string): void {
    for (const name of Object.keys(localStorage).filter((n) => n.startsWith(PREFIX))) {
      localStorage.setItem(`${PREFIX}${person} ${name.slice(PREFIX.length)}`, localStorage.getItem(name)!);
      localStorage.removeItem(name);
    }
  },
  /** Lets go of what waited too long. */
  sweep(): void {
    for (const name of Object.keys(localStorage).filter((n) => n.startsWith(PREFIX))) {
      const kept = read(name);
      if (!kept || Date.now() - kept.at > WAITS) localStorage.removeItem(name);
    }
  },
};
