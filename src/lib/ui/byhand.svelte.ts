import type { CslType } from '$lib/core/source';

/** What the dialog for starting a source by hand is filled with, while it is open. */
export interface ByHand {
  type: CslType;
  title?: string;
  URL?: string;
  DOI?: string;
  ISBN?: string;
}

export const byHand = $state<{ open: boolean; given: ByHand }>({
  open: false,
  given: { type: 'article-journal' },
});

/** Opens the dialog, filled in as far as is known. */
export function openByHand(given: Partial<ByHand> = {}): void {
  byHand.given = { type: given.ISBN ? 'book' : given.URL ? 'webpage' : 'article-journal', ...given };
  byHand.open = true;
}
