<script lang="ts">
  import { fieldName } from '$lib/core/source';
  import type { historyOf } from '$lib/server/sources';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import Differences from '../frame/Differences.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import SheetHeading from './SheetHeading.svelte';

  /** What was changed of a source, latest first; any state it was in can be brought back. */
  let { sourceId, revisions }: { sourceId: string; revisions: Awaited<ReturnType<typeof historyOf>> } =
    $props();
  let open = $state(false);

  async function restore(number: number, field?: string) {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/sources/${sourceId}/restore`, {
        number,
        ...(field ? { field } : {}),
      }),
    );
    if (made)
      done(
        !field
          ? `Revision ${number} is back.`
          : made.revisionId
            ? `${fieldName(field)} is as it was.`
            : `${fieldName(field)} is that already.`,
        [made.revisionId],
      );
    await renewed();
  }
</script>

<SheetHeading>
  <Button
    look="bare"
    class="history cursor-pointer underline underline-offset-[3px]"
    onclick={() => (open = !open)}
    aria-expanded={open}>History · {revisions.length}</Button
  >
</SheetHeading>
{#if open}
  <ol class="revisions">
    {#each revisions as revision, i (revision.number)}
      <li>
        <span class="why">{revision.why}</span>
        <span class="small-label">{revision.who} · {timeLabel(revision.at)}</span>
        {#if i > 0}<Button
            small
            look="quiet"
            title="The whole source as it was then"
            onclick={() => restore(revision.number)}>Bring back</Button
          >{/if}
        {#if i < revisions.length - 1 && revision.fields.length}
          <ul>
            {#each revision.fields as { field, was, is } (field)}
              <li>
                <span
                  ><strong>{fieldName(field)}</strong>
                  <Differences {was} {is} /></span
                >
                <Button
                  small
                  look="quiet"
                  aria-label="Bring back {fieldName(field).toLowerCase()} as it was before: {was ||
                    'nothing'}"
                  title="This value as it was before"
                  onclick={() => restore(revision.number, field)}>↶</Button
                >
              </li>
            {/each}
          </ul>
        {/if}
      </li>
    {/each}
  </ol>
{/if}

<style>
  .revisions li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 12.5px;
  }
  .why {
    flex: 1 1 12em;
  }
  .revisions ul {
    width: 100%;
  }
  .revisions ul li {
    flex-wrap: nowrap;
    justify-content: space-between;
    border: 0;
    padding: 1px 0 1px 10px;
  }
  strong {
    font-weight: 600;
  }
</style>
