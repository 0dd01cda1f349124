import { describe, offsetOf } from '$lib/core/passages';
import { debounce } from '../frame/client';
import type { Fresh } from './begun.svelte';
import { placeOf, readText } from './marking';

/** How long the ends of a selection by finger must have come to rest, in milliseconds. */
const REST = 700;

/** The words selected in a document, which is selected no more then; nothing where none are. */
export function takeSelection(doc: Document): Fresh | undefined {
  const selection = doc.getSelection();
  if (!selection || selection.isCollapsed) return undefined;
  const range = selection.getRangeAt(0);
  const { text, segments } = readText(doc);
  const ends = [
    offsetOf(segments, range.startContainer, range.startOffset),
    offsetOf(segments, range.endContainer, range.endOffset),
  ].filter((end) => end !== undefined);
  if (ends.length < 2) return undefined;
  const [from, to] = [Math.min(...ends), Math.max(...ends)];
  if (text.slice(from, to).trim() === '') return undefined;
  const selectors = describe(text, from, to);
  const start = text.indexOf(selectors.quote.exact, from);
  selection.removeAllRanges();
  return {
    selectors,
    start,
    end: start + selectors.quote.exact.length,
    place: placeOf(range.startContainer),
  };
}

/** Tells when something was selected in a document, by pointer, finger or keys, when Esc was pressed, and which mark was chosen. */
export function attend(
  doc: Document,
  told: { selected: () => void; left: () => void; chose: (passageId: string) => void },
): void {
  doc.addEventListener('mouseup', () => setTimeout(told.selected, 0));
  // A finger moves the ends of a selection by their handles; it is done when they have come to rest.
  let touched = false;
  doc.addEventListener('touchstart', () => (touched = true), { passive: true });
  const rested = debounce(told.selected, REST);
  doc.addEventListener('selectionchange', () => touched && rested());
  doc.addEventListener('keyup', ({ key }) => {
    if (key === 'Shift' || key.startsWith('Arrow')) told.selected();
    if (key === 'Escape') told.left();
  });
  doc.addEventListener('click', ({ target }) => {
    const { passage } = (target as Element).closest<HTMLElement>('mark[data-passage]')?.dataset ?? {};
    if (passage && passage !== 'new' && doc.getSelection()?.isCollapsed !== false) told.chose(passage);
  });
}
