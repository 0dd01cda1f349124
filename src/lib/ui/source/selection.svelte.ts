import { SvelteSet } from 'svelte/reactivity';

/** The sources selected in Sources. They stay selected while one opens a source and comes back. */
export const chosen = new SvelteSet<string>();

/** Where one was in Sources: the address and the row. */
export const place = { search: '', at: 0 };

let scope: string | undefined;

/** Selects nothing when one looks at another library or project than before. */
export function selectWithin(projectId: string | undefined): void {
  if (scope !== undefined && scope !== (projectId ?? '')) {
    chosen.clear();
    place.at = 0;
  }
  scope = projectId ?? '';
}
