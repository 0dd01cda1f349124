<script lang="ts">
  import { page } from '$app/state';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Checkbox, Popover } from '../kit';
  import { SOURCE_COLUMNS, type SourceColumns } from './columns.svelte';
  import { saveTable, tableOf } from './table-out';

  /** Which columns are shown. */
  let { columns }: { columns: SourceColumns } = $props();
  const shown = $derived(columns.shown());
  let going = $state('');

  async function save(as: 'csv' | 'ods') {
    await attempt(async () => {
      const table = await tableOf(page.url.search, shown, (n, total) => {
        going = n < total ? `${n.toLocaleString('en')} of ${total.toLocaleString('en')} …` : '';
      });
      saveTable(table, 'Sources', as);
      done(`${table.rows.length.toLocaleString('en')} rows saved.`);
    });
    going = '';
  }
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
  <div class="mt-2 flex items-center gap-2 border-t border-rule pt-2">
    <Button small onclick={() => save('csv')}>Save as CSV</Button>
    <Button small onclick={() => save('ods')}>Save as ODS</Button>
    {#if going}<span class="small-label" role="status">{going}</span>{/if}
  </div>
</Popover>
