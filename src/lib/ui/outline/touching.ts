import {
  attachInstruction,
  extractInstruction,
  type Operation,
} from '@atlaskit/pragmatic-drag-and-drop-hitbox/list-item';
import type { Dragged, Dragging } from './dragging';

/** How long a finger rests on a thing before it drags it, in milliseconds, and how far it may stray meanwhile, in pixels. */
const HOLD = 350;
const STRAY = 10;
/** How near to the edge of what scrolls a finger scrolls it, in pixels, and how fast, in pixels a frame. */
const EDGE = 56;
const SPEED = 9;

/** What takes part in dragging, by its element. */
const parts = new WeakMap<Element, () => Dragging>();

/** Where a thing that is dragged would go. */
interface Over {
  element: HTMLElement;
  operation: Operation;
}

/** What lies under a finger and takes what is dragged. */
function overAt(x: number, y: number, from: HTMLElement, what: Dragged): Over | undefined {
  let element = document.elementFromPoint(x, y) as HTMLElement | null;
  while (element && !parts.has(element)) element = element.parentElement;
  if (!element || element === from) return undefined;
  const operations = parts.get(element)!().can?.(what) ?? [];
  if (operations.length === 0) return undefined;
  const input = { clientX: x, clientY: y, pageX: x, pageY: y, button: 0, buttons: 1, altKey: false, ctrlKey: false, metaKey: false, shiftKey: false }; // prettier-ignore
  const available = Object.fromEntries(operations.map((o) => [o, 'available' as const]));
  const data = attachInstruction({}, { input, element, operations: available });
  const operation = extractInstruction(data)?.operation;
  return operation && { element, operation };
}

/** The nearest thing around an element that scrolls up and down. */
function scrollerOf(element: HTMLElement): HTMLElement | undefined {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (at.scrollHeight > at.clientHeight && /auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return undefined;
}

/**
 * Lets a finger drag what a mouse drags: it rests on a thing, then moves it; near the edge of the list the list moves. A finger
 * that moves at once scrolls, as ever. Gives what ends it.
 */
export function touchDrag(element: HTMLElement, now: () => Dragging): () => void {
  parts.set(element, now);
  function start(event: TouchEvent): void {
    const [touch] = event.touches;
    const given = event.target;
    if (!touch || event.touches.length > 1 || !(given instanceof HTMLElement) || !now().drag) return;
    if (given.closest('input, textarea, select, button, [contenteditable="true"]')) return;
    // What a finger began on goes on hearing of it when it is taken out of the page, which a long list does.
    const target: HTMLElement = given;
    const scroller = scrollerOf(element);
    let [x, y] = [touch.clientX, touch.clientY];
    const [fromX, fromY] = [x, y];
    let what: Dragged | undefined;
    let label: HTMLElement | undefined;
    let over: Over | undefined;
    let frame = 0;

    const show = (next: Over | undefined) => {
      if (over && over.element !== next?.element) delete over.element.dataset.drop;
      over = next;
      if (over) over.element.dataset.drop = over.operation;
    };
    const look = () => {
      if (!what || !label) return;
      label.style.translate = `${x + 14}px ${y - 34}px`;
      show(overAt(x, y, element, what));
    };
    const scroll = () => {
      frame = requestAnimationFrame(scroll);
      if (!scroller) return;
      const { top, bottom, height } = scroller.getBoundingClientRect();
      const edge = Math.min(EDGE, height / 6);
      const by = y < top + edge ? -SPEED : y > bottom - edge ? SPEED : 0;
      if (!by) return;
      scroller.scrollBy(0, by);
      look();
    };
    const begin = () => {
      const given = now().drag?.();
      if (!given) return end();
      what = given.what;
      label = document.createElement('div');
      label.className = 'drag-label under-finger';
      label.textContent = given.words;
      document.body.append(label);
      look();
      frame = requestAnimationFrame(scroll);
    };
    const timer = setTimeout(begin, HOLD);
    const moved = (event: TouchEvent) => {
      const [touch] = event.touches;
      if (!touch || event.touches.length > 1) return end();
      [x, y] = [touch.clientX, touch.clientY];
      if (!what) {
        if (Math.hypot(x - fromX, y - fromY) > STRAY) end();
        return;
      }
      event.preventDefault();
      look();
    };
    const left = (event: TouchEvent) => {
      if (what) event.preventDefault();
      const [dragged, to] = [what, over];
      end();
      if (dragged && to) parts.get(to.element)?.().drop?.(dragged, to.operation);
    };
    // While a finger drags, what the system would do with a long press is not done.
    const held = (event: Event) => what && event.preventDefault();
    function end(): void {
      clearTimeout(timer);
      cancelAnimationFrame(frame);
      show(undefined);
      label?.remove();
      what = label = undefined;
      target.removeEventListener('touchmove', moved);
      target.removeEventListener('touchend', left);
      target.removeEventListener('touchcancel', end);
      window.removeEventListener('contextmenu', held, true);
      window.removeEventListener('dragstart', held, true);
    }
    target.addEventListener('touchmove', moved, { passive: false });
    target.addEventListener('touchend', left);
    target.addEventListener('touchcancel', end);
    window.addEventListener('contextmenu', held, true);
    window.addEventListener('dragstart', held, true);
  }
  element.addEventListener('touchstart', start, { passive: true });
  return () => {
    parts.delete(element);
    element.removeEventListener('touchstart', start);
  };
}
