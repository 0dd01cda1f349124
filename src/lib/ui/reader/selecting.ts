import { describe, offsetOf, TINTS, WORDS_KINDS, type PassageKind, type Tint } from '$lib/core/passages';
import { debounce } from '../frame/client';
import type { Fresh } from './begun.svelte';
import type { Caret } from './caret';
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
  const place = placeOf(range.startContainer, range.endContainer);
  selection.removeAllRanges();
  return { selectors, start, end: start + selectors.quote.exact.length, place };
}

/** What is told of a document in its frame. */
export interface Attending {
  selected: () => void;
  left: () => void;
  chose: (passageId: string) => void;
  /** Words selected by the caret are to be kept at once, as a kind or in a tint. */
  keep: (as: { kind: PassageKind } | { tint: Tint }) => void;
}

/** The kind or the tint a key keeps what is selected as: the first letter of the kind, the number of the tint. */
function keptAs({
  key,
  ctrlKey,
  metaKey,
  altKey,
}: KeyboardEvent): { kind: PassageKind } | { tint: Tint } | undefined {
  if (ctrlKey || metaKey || altKey) return undefined;
  const kind = WORDS_KINDS.find((k) => k[0] === key.toLowerCase());
  if (kind) return { kind };
  const tint = /^[1-5]$/.test(key) ? TINTS[Number(key) - 1] : undefined;
  return tint && { tint };
}

/** Tells when something was selected in a document, by pointer, finger or keys, when Esc was pressed, and which mark was chosen. */
export function attend(doc: Document, caret: Caret, told: Attending): void {
  doc.addEventListener('mouseup', () => setTimeout(told.selected, 0));
  // A finger moves the ends of a selection by their handles; it is done when they have come to rest.
  let touched = false;
  doc.addEventListener('touchstart', () => (touched = true), { passive: true });
  const rested = debounce(told.selected, REST);
  doc.addEventListener('selectionchange', () => touched && rested());
  doc.addEventListener('keyup', ({ key }) => {
    // With the caret, words are selected in steps; Enter says that they are.
    if (!caret.on && (key === 'Shift' || key.startsWith('Arrow'))) told.selected();
  });
  doc.addEventListener('keydown', (event) => {
    const selected = caret.on && doc.getSelection()?.isCollapsed === false;
    const as = selected ? keptAs(event) : undefined;
    if (caret.key(event)) event.preventDefault();
    else if (as) told.keep(as);
    else if (event.key === 'Enter' && selected) told.selected();
    else if (event.key === 'Escape') told.left();
    else {
      // What is no key of the document is one of the page around it.
      const { key, code, ctrlKey, metaKey, altKey, shiftKey } = event;
      const again = new KeyboardEvent('keydown', {
        ...{ key, code, ctrlKey, metaKey, altKey, shiftKey },
        bubbles: true,
        cancelable: true,
      });
      if (!document.body.dispatchEvent(again)) event.preventDefault();
      return;
    }
    if (as) event.preventDefault();
  });
  doc.addEventListener('click', ({ target }) => {
    const { passage } = (target as Element).closest<HTMLElement>('[data-passage]')?.dataset ?? {};
    if (passage && passage !== 'new' && doc.getSelection()?.isCollapsed !== false) told.chose(passage);
  });
}
