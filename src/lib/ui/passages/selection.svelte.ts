import { SvelteSet } from 'svelte/reactivity';

/** The passages selected in Passages. They stay selected while one opens one and comes back. */
export const selected = new SvelteSet<string>();

let scope: string | undefined;

/** Selects nothing when one looks at another project than before. */
export function selectWithin(projectId: string | undefined): void {
  if (scope !== undefined && scope !== (projectId ?? '')) selected.clear();
  scope = projectId ?? '';
}
