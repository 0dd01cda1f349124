<script lang="ts">
  import { TAG_TINTS, type TagTint } from '$lib/core/source';
  import { Select } from '../kit';
  import NotePaper from './NotePaper.svelte';

  /** The colour a note is put on. */
  let { tint = $bindable() }: { tint: TagTint | null } = $props();
</script>

<span class="colour">
  {#if tint}<NotePaper {tint} />{/if}
  <Select
    look="chip"
    aria-label="Colour of the note"
    value={tint ?? ''}
    onchange={(e) => (tint = (e.currentTarget.value || null) as TagTint | null)}
  >
    <option value="">No colour</option>
    {#each TAG_TINTS as one (one)}<option value={one}>{one}</option>{/each}
  </Select>
</span>

<style>
  .colour {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
</style>
