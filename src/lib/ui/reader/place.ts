import { offsetOf, type Segment } from '$lib/core/passages';
import { call, debounce } from '../frame/client';
import { rangeOf, readText } from './marking';

/** Where a person stopped in a document: how much of its text stands above, and how far they ever came, in UTF-16 units. */
export interface Place {
  at: number;
  furthest: number;
}

/** How long somebody must have stayed at a place before it is put down, in milliseconds. */
const STAYED = 900;

/** The offset of the text at a height of a document. */
function offsetAt(doc: Document, segments: readonly Segment[], height: number): number | undefined {
  const box = doc.documentElement.getBoundingClientRect();
  for (const down of [4, 24, 60]) {
    const range = doc.caretRangeFromPoint?.(box.width / 3, height + down);
    const offset = range ? offsetOf(segments, range.startContainer, range.startOffset) : undefined;
    if (offset !== undefined) return offset;
  }
  return undefined;
}

/** Opens a document where one stopped, and puts down where one is, and how far one came. */
export function keepsPlace(copyId: () => string, scroller: () => HTMLElement | undefined) {
  let furthest = 0;
  let last = -1;
  let open: { doc: Document; length: number } | undefined;

  const put = debounce(() => {
    const view = scroller();
    if (!open || !view) return;
    const { doc, length } = open;
    const { segments } = readText(doc);
    const at = view.scrollTop < 8 ? 0 : offsetAt(doc, segments, view.scrollTop);
    if (at === undefined) return;
    const ended = view.scrollTop + view.clientHeight >= view.scrollHeight - 80;
    const bottom = ended ? length : (offsetAt(doc, segments, view.scrollTop + view.clientHeight - 60) ?? at);
    furthest = Math.max(furthest, bottom);
    if (at === last) return;
    last = at;
    // Where one is is no matter to trouble anybody with when it cannot be put down.
    void call('POST', `/api/copies/${copyId()}/place`, { at, furthest, length }).catch(() => undefined);
  }, STAYED);

  return {
    /** Takes a document over; without a place it is shown where it is. */
    open(doc: Document, place: Place | undefined): void {
      const { text, segments } = readText(doc);
      open = { doc, length: text.length };
      furthest = place?.furthest ?? 0;
      last = place?.at ?? -1;
      const view = scroller();
      const range =
        place && place.at > 0 ? rangeOf(doc, segments, { start: place.at, end: place.at + 1 }) : undefined;
      if (range && view) {
        const line = range.startContainer.parentElement?.closest<HTMLElement>('.leaf') ?? range;
        view.scrollTo({ top: Math.max(0, line.getBoundingClientRect().top - 12) });
      }
      view?.addEventListener('scroll', put, { passive: true });
      put();
    },
  };
}
