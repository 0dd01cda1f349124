/** What a caret in a document is told to do. */
export interface Caret {
  readonly on: boolean;
  /** Shows the caret at a height of the document, and moves it by keys from then on. */
  show: (height: number) => void;
  /** Sets the caret behind what is in an element, where marks were drawn anew. */
  behind: (element: Element) => void;
  hide: () => void;
  /** Does what a key is for; gives whether it was one of the caret's. */
  key: (event: KeyboardEvent) => boolean;
}

type Way = 'forward' | 'backward';
type Step = 'character' | 'word' | 'line' | 'lineboundary' | 'documentboundary';

/** Lines that a page of keys moves. */
const PAGE = 12;

/** Keys of a caret by the platform's habits: which way, by what, how often. */
function moveOf({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): [Way, Step, number] | undefined {
  const far = ctrlKey || metaKey || altKey;
  switch (key) {
    case 'ArrowLeft':
      return ['backward', far ? 'word' : 'character', 1];
    case 'ArrowRight':
      return ['forward', far ? 'word' : 'character', 1];
    case 'ArrowUp':
      return ['backward', 'line', 1];
    case 'ArrowDown':
      return ['forward', 'line', 1];
    case 'Home':
      return ['backward', far ? 'documentboundary' : 'lineboundary', 1];
    case 'End':
      return ['forward', far ? 'documentboundary' : 'lineboundary', 1];
    case 'PageUp':
      return ['backward', 'line', PAGE];
    case 'PageDown':
      return ['forward', 'line', PAGE];
    default:
      return undefined;
  }
}

/** The text that stands at or below a height of a document, as a collapsed range before it. */
function textAt(doc: Document, height: number): Range | undefined {
  const walker = doc.createTreeWalker(doc.body, 4);
  const range = doc.createRange();
  let last: Text | undefined;
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
    if (!node.data.trim()) continue;
    last = node;
    if (node.parentElement!.getBoundingClientRect().bottom < height) continue;
    range.selectNodeContents(node);
    for (const { bottom, top, left } of range.getClientRects())
      if (bottom > height) {
        const at = doc.caretRangeFromPoint?.(left + 1, (top + bottom) / 2);
        if (at && at.startContainer === node) return at;
        range.setStart(node, 0);
        range.collapse(true);
        return range;
      }
  }
  if (!last) return undefined;
  range.setStart(last, 0);
  range.collapse(true);
  return range;
}

/** A caret in a document that cannot be written in: moved, and words selected, by keys alone. `moved` brings it into view. */
export function caretIn(doc: Document, moved: (range: Range) => void): Caret {
  const bar = doc.createElement('span');
  bar.className = 'caret';
  bar.setAttribute('aria-hidden', 'true');
  let on = false;

  function draw(): void {
    const selection = doc.getSelection();
    const node = selection?.focusNode;
    if (!selection || !node) return;
    const at = doc.createRange();
    at.setStart(node, selection.focusOffset);
    at.collapse(true);
    let [rect] = at.getClientRects();
    if (!rect && node.nodeType === 3) {
      // Between two lines a caret has no place of its own; the letter beside it has.
      const { length } = node as Text;
      const offset = Math.min(selection.focusOffset, length - 1);
      if (offset >= 0) {
        at.setStart(node, offset);
        at.setEnd(node, offset + 1);
        [rect] = at.getClientRects();
      }
    }
    if (!rect) return;
    const root = doc.documentElement;
    Object.assign(bar.style, {
      left: `${rect.left + root.scrollLeft}px`,
      top: `${rect.top + root.scrollTop}px`,
      height: `${rect.height}px`,
    });
    moved(at);
  }

  return {
    get on() {
      return on;
    },
    show(height) {
      const at = textAt(doc, height);
      if (!at) return;
      const selection = doc.getSelection();
      selection?.removeAllRanges();
      selection?.addRange(at);
      on = true;
      doc.body.append(bar);
      doc.defaultView?.focus();
      draw();
    },
    behind(element) {
      const at = doc.createRange();
      at.selectNodeContents(element);
      at.collapse(false);
      const selection = doc.getSelection();
      selection?.removeAllRanges();
      selection?.addRange(at);
      draw();
    },
    hide() {
      on = false;
      bar.remove();
    },
    key(event) {
      const move = on ? moveOf(event) : undefined;
      if (!move) return false;
      const [way, step, times] = move;
      const selection = doc.getSelection();
      for (let i = 0; i < times; i++) selection?.modify(event.shiftKey ? 'extend' : 'move', way, step);
      draw();
      return true;
    },
  };
}
