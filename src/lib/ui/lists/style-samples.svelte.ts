import PQueue from 'p-queue';
import { onDestroy } from 'svelte';
import type { Attachment } from 'svelte/attachments';
import { SvelteMap } from 'svelte/reactivity';
import type { ShownReference } from '$lib/server/lists';
import { call } from '../frame/client';

/** How many styles print at once: each is compiled when it is first seen. */
const AT_ONCE = 2;

/**
 * What a source prints as in styles, by the style: printed as the rows of a list of styles come into view, those in view
 * first. `seen` is put on each row; what has gone out of view before its turn is not printed.
 */
export function styleSamples(source: () => string | undefined, locale: () => string) {
  const html = new SvelteMap<string, string>();
  const queue = new PQueue({ concurrency: AT_ONCE });
  onDestroy(() => queue.clear());

  const keyOf = (style: string) => `${style} ${locale()} ${source() ?? ''}`;
  async function print(style: string): Promise<void> {
    const [id, key] = [source(), keyOf(style)];
    if (id === undefined || html.has(key)) return;
    const printed = await call<ShownReference[]>('POST', '/api/printed', {
      ids: [id],
      look: { style, locale: locale() },
    }).catch(() => []);
    html.set(key, printed[0]?.html ?? '');
  }
  const seen =
    (style: string): Attachment =>
    (row) => {
      let inView = false;
      const observer = new IntersectionObserver(([entry]) => {
        inView = entry?.isIntersecting ?? false;
        if (inView) void queue.add(async () => inView && print(style));
      });
      observer.observe(row);
      return () => {
        inView = false;
        observer.disconnect();
      };
    };
  return { of: (style: string): string | undefined => html.get(keyOf(style)), seen };
}
