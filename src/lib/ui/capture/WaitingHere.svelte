<script lang="ts">
  import { Button } from '../kit';
  import { timeLabel } from '../frame/dates';
  import { throwAway, waits } from './sending.svelte';
  import { lineOf } from './waiting';

  /** What was captured while the server was not reached, until it is sent. `library` is the one that is open. */
  let { library }: { library?: string | undefined } = $props();
  const refused = $derived(waits.all.filter((one) => one.trouble));
  const elsewhere = $derived(
    library === undefined ? [] : waits.all.filter((one) => !one.trouble && one.library !== library),
  );
  const many = (n: number) => (n === 1 ? 'one capture' : `${n.toLocaleString('en')} captures`);
</script>

{#if waits.all.length}
  <details class="waiting" open={refused.length > 0}>
    <summary
      >{many(waits.all.length)} of yours {waits.all.length === 1 ? 'waits' : 'wait'} in this browser{refused.length
        ? `; the server did not take ${refused.length === 1 ? 'one' : refused.length}`
        : elsewhere.length === waits.all.length
          ? ' for another library to be opened'
          : ' until the server is reached'}.</summary
    >
    <ul>
      {#each waits.all as one (one.id)}
        <li>
          <span class="what"
            >{lineOf(one).slice(0, 200)}
            <span class="small-label">{timeLabel(new Date(one.at).toISOString())}</span>
            {#if one.trouble}<span class="pencil-red">{one.trouble}</span>{/if}</span
          >
          <Button
            small
            look="quiet"
            aria-label="Throw away {lineOf(one).slice(0, 60)}"
            onclick={() => throwAway(one.id)}>Throw away</Button
          >
        </li>
      {/each}
    </ul>
  </details>
{/if}

<style>
  .waiting {
    padding: 7px 26px;
    border-top: 1px solid var(--edge);
    background: var(--blue-soft);
    font-size: 13.5px;
  }
  summary {
    cursor: pointer;
  }
  ul {
    max-height: 30vh;
    overflow-y: auto;
  }
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    justify-content: space-between;
    padding: 4px 0;
  }
  .what {
    min-width: 0;
    overflow-wrap: anywhere;
  }
</style>
