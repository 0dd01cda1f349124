<script lang="ts">
  import { Button, Checkbox, Popover } from '../kit';
  import { SOURCE_COLUMNS, type SourceColumns } from './columns.svelte';

  /** Which columns are shown. */
  let { columns }: { columns: SourceColumns } = $props();
  const shown = $derived(columns.shown());
</script>

<Button look="chip" id="which-columns">Which columns</Button>
<span class="sr-only" aria-live="polite">{columns.said}</span>
<Popover triggeredBy="#which-columns" label="Which columns">
  <ul class="grid gap-1.5 text-[13px]">
    {#each SOURCE_COLUMNS as { id, head } (id)}
      {@const on = shown.some((c) => c.id === id)}
      <li>
        <label class="flex items-center gap-2">
          <Checkbox
            checked={on}
            disabled={on && shown.length === 1}
            onchange={() => columns.table.getColumn(id)!.toggleVisibility(!on)}
          />
          {head}
        </label>
      </li>
    {/each}
  </ul>
  <Button small look="quiet" class="mt-2" onclick={() => columns.reset()}>As they were at first</Button>
</Popover>
