<script lang="ts">
  import type { Passage } from '$lib/server/passages';
  import { Button } from '../kit';

  /** Passages that are not found in the page as it is now. */
  let { passages, onedit }: { passages: Passage[]; onedit: (id: string) => void } = $props();
</script>

{#if passages.length}
  <section class="lost" aria-label="Lost passages">
    <strong class="pencil-red"
      >{passages.length === 1 ? 'One passage is' : `${passages.length} passages are`} no longer in the page as it
      is now.</strong
    >
    {#each passages as { id, exact } (id)}
      <p><q class="serif">{exact}</q> <Button small onclick={() => onedit(id)}>Edit</Button></p>
    {/each}
  </section>
{/if}

<style>
  .lost {
    max-height: 170px;
    padding: 10px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--red-soft);
    overflow: auto;
  }
</style>
