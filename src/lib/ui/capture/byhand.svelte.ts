import type { ByHandWords } from '$lib/core/forms';
import { recognise } from '$lib/core/source';

/** What the dialog for starting a source by hand is filled with, while it is open. */
export const byHand = $state<{ open: boolean; given: ByHandWords }>({
  open: false,
  given: { type: 'article-journal' },
});

/** Opens the dialog, filled in as far as is known. */
export function openByHand(given: Partial<ByHandWords> = {}): void {
  byHand.given = { type: given.ISBN ? 'book' : given.URL ? 'webpage' : 'article-journal', ...given };
  byHand.open = true;
}

/** Opens the dialog with what a text was meant to capture. */
export function byHandFrom(text: string): void {
  const given = recognise(text);
  if (given.kind === 'address') openByHand({ URL: given.address });
  else if (given.kind === 'doi' || given.kind === 'arxiv') openByHand({ DOI: given.doi });
  else if (given.kind === 'isbn') openByHand({ ISBN: given.isbn });
  else if (given.kind === 'pmid') openByHand({ PMID: given.pmid });
  else openByHand({ title: text.replace(/\.\w{2,5}$/, '').slice(0, 300) });
}
