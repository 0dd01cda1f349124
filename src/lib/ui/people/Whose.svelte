<script lang="ts">
  import { onMount } from 'svelte';
  import { Checkbox } from '../kit';
  import { hidden, hide, people, readHidden } from './others.svelte';
  import PersonMark from './PersonMark.svelte';

  /** Whose passages are shown in a document, each with how many there are. */
  let { passages }: { passages: readonly { ownerId: string; owner: string }[] } = $props();
  onMount(readHidden);
  const whose = $derived(
    [...new Map(passages.map((p) => [p.ownerId, p.owner]))].map(([id, name]) => ({
      id,
      name,
      n: passages.filter((p) => p.ownerId === id).length,
    })),
  );
</script>

{#if whose.length > 1}
  <fieldset>
    <legend>Whose passages are shown</legend>
    {#each whose as { id, name, n } (id)}
      <label
        ><Checkbox checked={!hidden.has(id)} onchange={(e) => hide(id, !e.currentTarget.checked)} />
        <PersonMark {id} {name} self={id === people.self} /> <span class="n">{n}</span></label
      >
    {/each}
  </fieldset>
{/if}

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin-bottom: 8px;
    font-size: 13px;
  }
  legend {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  label {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    min-height: 26px;
  }
  .n {
    color: var(--ink-3);
    font-variant-numeric: tabular-nums;
  }
</style>
