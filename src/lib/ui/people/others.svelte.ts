import { SvelteSet } from 'svelte/reactivity';
import { page } from '$app/state';
import { allows } from '../kit';

/** Somebody in the library. */
export interface Somebody {
  id: string;
  name: string;
}

/** Who is in the library, and who looks. */
export const people = {
  get all(): Somebody[] {
    return (page.data.everybody ?? []) as Somebody[];
  },
  get self(): string {
    return (page.data.personId ?? '') as string;
  },
  /** Whether there are others: what is whose is said only then. */
  get several(): boolean {
    return people.all.length > 1;
  },
};

/** What somebody is called. */
export const nameOf = (id: string): string =>
  people.all.find((one) => one.id === id)?.name ?? 'somebody who left';

/** Who sees what is not for the whole library, in words; nothing where all do. */
export function onlyFor({
  visibility,
  shownTo = [],
  ownerId,
}: {
  visibility: 'private' | 'library';
  shownTo?: readonly string[];
  ownerId?: string;
}): string {
  if (visibility === 'library') return '';
  const others = [...(ownerId ? [ownerId] : []), ...shownTo]
    .filter((id, i, all) => id !== people.self && all.indexOf(id) === i)
    .map(nameOf);
  return others.length ? `only for me and ${others.join(', ')}` : 'only for me';
}

/** Whether who looks may change what somebody kept: their own, or any as an editor. */
export const mayChange = ({ ownerId }: { ownerId: string }): boolean =>
  allows('edit') || (allows('annotate') && ownerId === people.self);

const KEPT = 'retexa-hidden-people';

/** Whose passages are not shown in documents, remembered in this browser. */
export const hidden = new SvelteSet<string>();

/** Reads what is remembered; once, when the page is there. */
export function readHidden(): void {
  try {
    for (const id of JSON.parse(localStorage.getItem(KEPT) ?? '[]') as unknown[])
      if (typeof id === 'string') hidden.add(id);
  } catch {
    // What cannot be read hides nobody.
  }
}

/** Shows or hides somebody’s passages. */
export function hide(id: string, away: boolean): void {
  if (away) hidden.add(id);
  else hidden.delete(id);
  localStorage.setItem(KEPT, JSON.stringify([...hidden]));
}
