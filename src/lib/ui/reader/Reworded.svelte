<script lang="ts">
  import { wordsOf } from '$lib/core/passages';
  import type { Passage } from '$lib/server/passages';
  import { parts } from '../frame/differences';

  /** Says that the words of a passage have changed in the text, and shows both wordings with what differs marked. */
  let { passage }: { passage: Passage } = $props();
  const now = $derived(passage.selectors ? wordsOf(passage.selectors, passage.further) : '');
</script>

<div class="reworded">
  <p class="pencil-blue">The words have changed</p>
  <dl>
    <dt class="small-label">kept</dt>
    <dd class="serif">
      {#each parts(passage.exact, now) as part, i (i)}{#if part.differs}<del>{part.text}</del
          >{:else}{part.text}{/if}{/each}
    </dd>
    <dt class="small-label">now</dt>
    <dd class="serif">
      {#each parts(now, passage.exact) as part, i (i)}{#if part.differs}<ins>{part.text}</ins
          >{:else}{part.text}{/if}{/each}
    </dd>
  </dl>
</div>

<style>
  .reworded {
    margin-top: 4px;
    font-size: 13px;
  }
  dl {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 2px 8px;
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  del {
    color: var(--red-pencil);
  }
  ins {
    background: var(--green-soft);
    text-decoration: none;
  }
</style>
