<script lang="ts">
  import type { Passage } from '$lib/server/passages';
  import { Button } from '../kit';

  interface Props {
    passages: Passage[];
    /** Whether what stood around one still stands, so that it is known where it used to be. */
    known: (id: string) => boolean;
    onshow: (id: string) => void;
    onedit: (id: string) => void;
  }
  /** Passages that are not found in the page as it is now. */
  let { passages, known, onshow, onedit }: Props = $props();
</script>

{#if passages.length}
  <section class="lost" aria-label="Lost passages">
    <strong class="pencil-red"
      >{passages.length === 1 ? 'One passage is' : `${passages.length} passages are`} no longer in the page as it
      is now.</strong
    >
    {#each passages as { id, exact } (id)}
      <p>
        <q class="serif">{exact}</q>
        {#if known(id)}<Button small onclick={() => onshow(id)}>Where it was</Button>{/if}
        <Button small onclick={() => onedit(id)}>Edit</Button>
      </p>
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
