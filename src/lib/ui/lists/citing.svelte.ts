import type { Locator } from '$lib/core/passages';

/** A work to be cited, with its place in the work. */
export interface Work {
  id: string;
  name: string;
  locator?: Locator | null;
}

export const citing = $state<{ open: boolean; works: Work[] }>({ open: false, works: [] });

/** Opens the dialogue in which an in-text citation is put together. */
export function openCiting(works: Work[]): void {
  citing.works = works;
  citing.open = true;
}
