<script lang="ts">
  import { dateLabel } from '../frame/dates';
  import { Button } from '../kit';

  interface Props {
    pairs: { words: string[]; at: string; again: () => void }[];
  }
  /** Pairs that somebody said are two, which can be compared again. */
  let { pairs }: Props = $props();
</script>

{#if pairs.length}
  <ul aria-label="Kept apart">
    {#each pairs as pair (pair)}
      <li>
        <span class="serif">{pair.words[0]} <span class="small-label">and</span> {pair.words[1]}</span>
        <span class="small-label">{dateLabel(pair.at)}</span>
        <Button needs="edit" small onclick={pair.again}>Compare again</Button>
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 3px 0;
  }
</style>
