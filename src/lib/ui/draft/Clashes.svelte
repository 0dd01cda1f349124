<script lang="ts">
  import { textOfBlock, type DraftPart } from '$lib/core/drafting';
  import Differences from '../frame/Differences.svelte';
  import { Banner, Button } from '../kit';
  import type { Writing } from './writing.svelte';

  interface Props {
    writing: Writing;
    /** The text as it is here. */
    now: () => DraftPart[];
    onshow: (part: string) => void;
  }
  /** Parts that were changed here and somewhere else, for a person to decide. */
  let { writing, now, onshow }: Props = $props();
</script>

{#each writing.clashes as clash (clash.id)}
  {@const mine = now().find((p) => p.id === clash.id)}
  <Banner look="asked" role="alert">
    <p>
      <b
        >{clash.theirs
          ? 'This was changed somewhere else while you wrote.'
          : 'This was taken out somewhere else while you wrote.'}</b
      >
      Nothing was written over.
    </p>
    <p class="serif">
      <Differences
        was={clash.theirs ? textOfBlock(clash.theirs) : ''}
        is={mine ? textOfBlock(mine.content) : ''}
      />
    </p>
    <p class="acts">
      <Button small look="main" onclick={() => writing.decide(clash.id, 'mine')}>Keep mine</Button>
      <Button small onclick={() => writing.decide(clash.id, 'theirs')}
        >{clash.theirs ? 'Take theirs' : 'Take it out'}</Button
      >
      {#if clash.theirs}<Button small onclick={() => writing.decide(clash.id, 'both')}>Keep both</Button>{/if}
      <Button small look="quiet" onclick={() => onshow(clash.id)}>Show it</Button>
    </p>
  </Banner>
{/each}

<style>
  .acts {
    display: flex;
    gap: 6px;
  }
</style>
