<script lang="ts">
  import type { RelatedSource } from '$lib/server/duplicates';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { attempt, doneWithUndo } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  interface Props {
    id: string;
    doubles: { id: string; label: string; reason: string; sure: boolean }[];
    related?: RelatedSource[];
  }
  /** Says which sources a source looks the same as, and which it belongs together with. */
  let { id, doubles, related = [] }: Props = $props();

  async function notSo(other: RelatedSource) {
    const both = { id, others: [other.id] };
    const kept = await attempt(async () => {
      await call('POST', '/api/duplicates', { act: 'unrelate', ...both });
      return true;
    });
    const again = other.said
      ? { act: 'relate', ...both, kind: other.kind }
      : { act: 'relate-again', ...both };
    if (kept) doneWithUndo('No longer linked.', () => call('POST', '/api/duplicates', again));
    await renewed();
  }
</script>

{#each doubles as double (double.id)}
  <p>
    {double.sure ? 'Surely one you have' : 'Looks like one you have'}:
    <a class="link" href="/sources/{double.id}">{double.label}</a> ({double.reason}).
    <a class="link" href="/duplicates?with={id}">Compare them</a>
  </p>
{/each}
{#each related as other (other.id)}
  <p class="related">
    Belongs with <a class="link" href="/sources/{other.id}">{other.label}</a>: {other.words}.
    <Button needs="edit" look="link" onclick={() => notSo(other)}>It does not</Button>
  </p>
{/each}

<style>
  p {
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
    color: var(--blue-pencil);
    background: var(--blue-soft);
  }
  .related {
    color: var(--ink-2);
    background: var(--side);
  }
</style>
