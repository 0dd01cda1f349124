import { untrack } from 'svelte';
import type { CopyOpen } from './open';

/** When a copy was last open, however often it is read anew while it is: what others did since is new. */
export function lookedAt(data: () => CopyOpen): () => string | undefined {
  const since = $derived.by(() => {
    void data().copy.id;
    return untrack(() => data().place?.read);
  });
  return () => since;
}
