<script lang="ts">
  import type { ForMe } from '$lib/server/replies';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { attempt } from '../frame/toasts.svelte';
  import { Button } from '../kit';

  /** What others said for who looks, until they looked at it. */
  let { lines }: { lines: ForMe[] } = $props();
  const seen = (ids: string[]) => attempt(() => call('POST', '/api/replies/seen', { ids }));
  const there = ({ copyId, passageId, sourceId }: ForMe) =>
    copyId ? `/copies/${copyId}?passage=${passageId}` : `/passages?source=${sourceId}`;
</script>

<ul>
  {#each lines as line (line.id)}
    <li>
      <a href={there(line)} onclick={() => void seen([line.id])}
        ><span class="small-label">{line.from}, {timeLabel(line.added)}, at {line.sourceLabel}</span>
        <span class="said">{line.text.slice(0, 240)}{line.text.length > 240 ? '…' : ''}</span></a
      >
      <Button small look="quiet" onclick={() => seen([line.id])}>Seen</Button>
    </li>
  {/each}
</ul>

<style>
  li {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    flex: 1;
    min-width: 0;
  }
  a:hover .said {
    text-decoration: underline;
  }
  .said {
    overflow-wrap: anywhere;
  }
</style>
