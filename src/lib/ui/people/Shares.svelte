<script lang="ts">
  import type { Share } from '$lib/server/shares';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { attempt, done } from '../frame/toasts.svelte';
  import Lines from './Lines.svelte';
  import { Button } from '../kit';

  /** The links to read that open something now. */
  let { shares, edits }: { shares: Share[]; edits: boolean } = $props();
  const shown = ({ documents, passages }: Share) =>
    [documents && 'documents', passages && 'passages'].filter(Boolean).join(' and ');
  const withdraw = ({ id, name }: Share) =>
    attempt(async () => {
      await call('DELETE', `/api/shares/${id}`, {});
      done(`The link to ${name} opens nothing any more.`);
    });
</script>

<Lines>
  {#each shares as one (one.id)}
    <li>
      <span
        >{one.name}
        <span class="sub block"
          >{one.what}{shown(one) ? `, with ${shown(one)}` : ''}; by {one.by}, {one.expires
            ? `until ${dateLabel(one.expires)}`
            : 'until it is withdrawn'}; {one.opened === 0
            ? 'not opened yet'
            : `opened ${one.opened === 1 ? 'once' : `${one.opened} times`}, last ${dateLabel(one.last_opened!)}`}</span
        ></span
      >
      {#if edits}<Button small aria-label="Withdraw the link to {one.name}" onclick={() => withdraw(one)}
          >Withdraw</Button
        >{/if}
    </li>
  {:else}
    <li>
      <span class="sub"
        >None.{#if edits}
          One is made at a <a class="link" href="/references">reference list</a>.{/if}</span
      >
    </li>
  {/each}
</Lines>
