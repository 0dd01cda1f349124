import type { SvelteVirtualizer } from '@tanstack/svelte-virtual';
import { get, type Readable } from 'svelte/store';

/** An action for the rows of a virtualizer: tells it how high each really is, and when that changes. */
export const measuring =
  (virtual: Readable<SvelteVirtualizer<HTMLElement, HTMLElement>>) => (node: HTMLElement) => {
    const measure = () => get(virtual).measureElement(node);
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(node);
    return { destroy: () => watch.disconnect() };
  };
