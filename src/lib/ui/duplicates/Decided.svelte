<script lang="ts">
  import type { keptApart, undoableMerges } from '$lib/server/duplicates';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  interface Props {
    merges: Awaited<ReturnType<typeof undoableMerges>>;
    apart: Awaited<ReturnType<typeof keptApart>>;
  }
  /** What was decided of pairs, and can be decided otherwise. */
  let { merges, apart }: Props = $props();

  async function notApart({ a, b }: { a: string; b: string }) {
    await attempt(async () => {
      await call('POST', '/api/duplicates', { act: 'not-apart', a, b });
      done('They are compared again.');
    });
    await renewed();
  }

  async function undo(id: string) {
    await attempt(async () => {
      await call('POST', `/api/merges/${id}/undo`, {});
      done('The merge is undone. Both sources are as they were.');
    });
    await renewed();
  }
</script>

{#if merges.length}
  <ul class="merges">
    {#each merges as merge (merge.id)}
      <li>
        <span class="serif">{merge.label}</span>
        <span class="small-label">took in {merge.citekey}, {dateLabel(merge.at)}</span>
        <Button small onclick={() => undo(merge.id)}>Undo</Button>
      </li>
    {/each}
  </ul>
{/if}

{#if apart.length}
  <ul class="merges" aria-label="Kept apart">
    {#each apart as kept (kept.a + kept.b)}
      <li>
        <span class="serif">{kept.labels[0]} <span class="small-label">and</span> {kept.labels[1]}</span>
        <span class="small-label">{dateLabel(kept.at)}</span>
        <Button small onclick={() => notApart(kept)}>Compare again</Button>
      </li>
    {/each}
  </ul>
{/if}

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
