<script lang="ts">
  import type { keptApart, undoableMerges } from '$lib/server/duplicates';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import { undoMerge } from './deciding';
  import KeptApart from './KeptApart.svelte';

  interface Props {
    merges: Awaited<ReturnType<typeof undoableMerges>>;
    apart: Awaited<ReturnType<typeof keptApart>>;
  }
  /** What was decided of pairs, and can be decided otherwise. */
  let { merges, apart }: Props = $props();

  async function notApart({ a, b }: { a: string; b: string }) {
    await attempt(async () => {
      await call('POST', '/api/duplicates', { act: 'not-apart', id: a, others: [b] });
      done('They are compared again.');
    });
    await renewed();
  }

  async function undo(id: string) {
    await attempt(async () => done(await undoMerge(id)));
    await renewed();
  }
</script>

{#if merges.length}
  <ul class="merges">
    {#each merges as merge (merge.id)}
      <li>
        <span class="serif">{merge.label}{merge.works > 1 ? ` and ${merge.works - 1} more` : ''}</span>
        <span class="small-label"
          >took in {merge.citekeys.slice(0, 3).join(', ')}{merge.citekeys.length > 3
            ? ` and ${merge.citekeys.length - 3} more`
            : ''}, {dateLabel(merge.at)}</span
        >
        <Button needs="edit" small onclick={() => undo(merge.id)}>Undo</Button>
      </li>
    {/each}
  </ul>
{/if}

<KeptApart
  pairs={apart.map((kept) => ({ words: kept.labels, at: kept.at, again: () => void notApart(kept) }))}
/>

<style>
  .merges {
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .merges li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 3px 0;
  }
</style>
