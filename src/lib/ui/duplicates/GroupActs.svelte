<script lang="ts">
  import { keyFor } from '../frame/actions.svelte';
  import { Button } from '../kit';
  import RelationSelect from './RelationSelect.svelte';

  interface Props {
    /** How many sources the group has, and whether it is being merged. */
    size: number;
    busy: boolean;
    /** There are other groups to go to, and fields in which the sources differ. */
    others: boolean;
    differing: boolean;
    onmerge: () => void;
    onapart: () => void;
    onrelate: (kind: string) => void;
    onlater: () => void;
    ontype: () => void;
  }
  /** What can be done with a group of sources that look like one work. */
  let { size, busy, others, differing, onmerge, onapart, onrelate, onlater, ontype }: Props = $props();
</script>

<div class="acts">
  <Button needs="edit" look="main" keys={keyFor('duplicates merge')} onclick={onmerge} disabled={busy}
    >Merge into one</Button
  >
  {#if size === 2}
    <Button needs="edit" keys={keyFor('duplicates apart')} onclick={onapart}>Keep apart</Button>
    <RelationSelect label="Two works that belong together" words="Two works, linked as…" onkind={onrelate} />
  {/if}
  <Button keys={keyFor('duplicates later')} onclick={onlater} disabled={!others}>Decide later</Button>
  <Button needs="edit" keys={keyFor('duplicates type')} onclick={ontype} disabled={!differing}
    >Type a value</Button
  >
  <span class="flex-1"></span>
  <span class="small-label">↑ ↓ row · ← → choose a value</span>
</div>

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
  }
</style>
