<script lang="ts">
  import { Button, Checkbox } from '../kit';
  import { people } from './others.svelte';

  interface Props {
    visibility: 'private' | 'library';
    /** Who sees it too where it is private, by id. */
    shownTo: string[];
  }
  /** Who sees what is kept: all of the library, oneself alone, or oneself and some. */
  let { visibility = $bindable(), shownTo = $bindable() }: Props = $props();
  const others = $derived(people.all.filter(({ id }) => id !== people.self));
</script>

<div class="sees">
  <label class="private" data-tip="Not shown to others the library is shared with"
    ><Checkbox
      bind:checked={() => visibility === 'private', (only) => (visibility = only ? 'private' : 'library')}
    />
    Only for me</label
  >
  {#if visibility === 'private' && others.length}
    <span class="some" role="group" aria-label="And for">
      and for
      {#each others as one (one.id)}
        <Button
          look="chip"
          aria-pressed={shownTo.includes(one.id)}
          onclick={() =>
            (shownTo = shownTo.includes(one.id)
              ? shownTo.filter((id) => id !== one.id)
              : [...shownTo, one.id])}>{one.name}</Button
        >
      {/each}
    </span>
  {/if}
</div>

<style>
  .sees {
    display: flex;
    flex: 1;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    color: var(--ink-2);
    font-size: 12.5px;
  }
  .private {
    display: flex;
    gap: 5px;
    align-items: center;
    white-space: nowrap;
  }
  .some {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: center;
    max-height: 92px;
    overflow-y: auto;
  }
</style>
