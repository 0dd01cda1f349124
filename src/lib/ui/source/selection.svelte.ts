import { SvelteSet } from 'svelte/reactivity';
import { call } from '../frame/client';

/** The sources selected in Sources. They stay selected while one opens a source and comes back. */
export const chosen = new SvelteSet<string>();

/** Where one was in Sources: the address and the row. */
export const place = { search: '', at: 0 };

/** The list in Sources one opened a source from, to go on in it: its address, how long it is, and what is known of it by place. */
// Nothing on a page follows it: it is read when a source is opened.
// eslint-disable-next-line svelte/prefer-svelte-reactivity
export const walk = { search: '', total: 0, ids: new Map<number, string>() };

/** How many sources the server gives at once. */
const PAGE = 100;

/** Where a source stands in the list it was opened from, counted from 0; -1 where it is in none. */
export function walkedTo(id: string): number {
  for (const [at, one] of walk.ids) if (one === id) return at;
  return -1;
}

/** The source at a place of the list it was opened from; asked for where it was not seen. */
export async function walkOn(at: number): Promise<string | undefined> {
  if (at < 0 || at >= walk.total) return undefined;
  if (!walk.ids.has(at)) {
    const from = Math.floor(at / PAGE) * PAGE;
    const { items } = await call<{ items: { id: string }[] }>(
      'GET',
      `/api/sources${walk.search || '?'}${walk.search ? '&' : ''}offset=${from}`,
    );
    items.forEach((item, i) => walk.ids.set(from + i, item.id));
  }
  return walk.ids.get(at);
}

let scope: string | undefined;

/** Selects nothing when one looks at another library or project than before. */
export function selectWithin(projectId: string | undefined): void {
  if (scope !== undefined && scope !== (projectId ?? '')) {
    chosen.clear();
    place.at = 0;
  }
  scope = projectId ?? '';
}
