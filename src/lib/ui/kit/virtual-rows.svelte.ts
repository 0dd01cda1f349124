import { createVirtualizer } from '@tanstack/svelte-virtual';
import { untrack } from 'svelte';
import { get } from 'svelte/store';

/**
 * The rows of a long list of which only those in view are on the page, as a store, and the action that tells how high a
 * row really is. Must be made while a component is.
 */
export function virtualRows(list: {
  scroller: () => HTMLElement | undefined;
  count: () => number;
  /** How high a row is thought to be before it is seen, in pixels. */
  height: () => number;
}) {
  const getScrollElement = () => list.scroller() ?? null;
  const virtual = createVirtualizer<HTMLElement, HTMLElement>({
    count: 0,
    getScrollElement,
    estimateSize: () => untrack(list.height),
    overscan: 8,
    initialRect: { width: 1000, height: 620 },
  });
  $effect(() => {
    const [count, height] = [list.count(), list.height()];
    untrack(() => get(virtual).setOptions({ count, getScrollElement, estimateSize: () => height }));
  });
  const measure = (node: HTMLElement) => {
    const tell = () => get(virtual).measureElement(node);
    tell();
    const watch = new ResizeObserver(tell);
    watch.observe(node);
    return { destroy: () => watch.disconnect() };
  };
  return { virtual, measure };
}
