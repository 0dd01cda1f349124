<script lang="ts">
  import { fieldName } from '$lib/core/source';
  import type { historyOf } from '$lib/server/sources';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  /** What was changed of a source, latest first; any state it was in can be brought back. */
  let { sourceId, revisions }: { sourceId: string; revisions: Awaited<ReturnType<typeof historyOf>> } =
    $props();
  let open = $state(false);

  async function restore(number: number) {
    await attempt(async () => {
      await call('POST', `/api/sources/${sourceId}/restore`, { number });
      done(`Revision ${number} is back.`);
    });
    await renewed();
  }
</script>

<h3>
  <Button look="bare" class="history" onclick={() => (open = !open)} aria-expanded={open}
    >History · {revisions.length}</Button
  >
</h3>
{#if open}
  <ol class="revisions">
    {#each revisions as revision, i (revision.number)}
      <li>
        <span
          >{revision.why}{#if revision.fields.length}:
            {#each revision.fields.slice(0, 5) as { field, was, is }, n (field)}{n ? '; ' : ' '}{fieldName(
                field,
              )}{#if was || is}&nbsp;<del>{was || 'nothing'}</del> →
                <ins>{is || 'nothing'}</ins>{/if}{/each}{/if}</span
        >
        <span class="small-label">{timeLabel(revision.at)}</span>
        {#if i > 0}<Button small look="quiet" onclick={() => restore(revision.number)}>Bring back</Button
          >{/if}
      </li>
    {/each}
  </ol>
{/if}

<style>
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  h3 :global(.history) {
    cursor: pointer;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  del {
    color: var(--ink-3);
  }
  ins {
    text-decoration: none;
    font-weight: 550;
  }
  .revisions li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 12.5px;
  }
</style>
