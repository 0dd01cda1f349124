import type { Context } from './context';
import { tellHere } from './events';

/** How long somebody is thought to look at a source after their page last said so, in milliseconds. */
export const STAYS = 50_000;

interface Look {
  libraryId: string;
  personId: string;
  source: string;
  until: number;
}

/** What each open page looks at, by its person and its own id. Known to this process only: nothing of it is kept. */
const looks = new Map<string, Look>();

/** Most pages one person is known to have open, so that nobody fills the memory. */
const MOST_PAGES = 40;

const at = (libraryId: string, source: string): string[] => [
  ...new Set(
    [...looks.values()]
      .filter((look) => look.libraryId === libraryId && look.source === source)
      .map((look) => look.personId),
  ),
];

const leave = (key: string): void => {
  const look = looks.get(key);
  if (!look) return;
  looks.delete(key);
  tellHere(look.libraryId, look.source, at(look.libraryId, look.source));
};

/**
 * Puts down which source a page of the person looks at, or that it looks at none any more; gives who looks at it now. Pages of the library
 * are told when that is somebody else than before. Pages that said nothing for a while are thought to be closed.
 */
export function looksAt(
  { libraryId, personId }: Context,
  page: string,
  source: string | null,
  now = Date.now(),
): string[] {
  for (const [key, look] of looks) if (look.until < now) leave(key);
  const key = `${personId} ${page}`;
  const before = looks.get(key);
  if (before && (before.source !== source || before.libraryId !== libraryId)) leave(key);
  if (source === null) return [];
  const known = at(libraryId, source);
  if (!before) {
    const own = [...looks].filter(([, look]) => look.personId === personId);
    for (const [old] of own.slice(0, Math.max(0, own.length - MOST_PAGES + 1))) leave(old);
  }
  looks.set(key, { libraryId, personId, source, until: now + STAYS });
  const people = at(libraryId, source);
  if (people.length !== known.length) tellHere(libraryId, source, people);
  return people;
}
