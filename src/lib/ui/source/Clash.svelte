<script lang="ts">
  import { fieldName, valueText, type SourceRecord } from '$lib/core/source';
  import { Button, Dialog, Radio } from '../kit';
  import type { editing } from './source-editing.svelte';

  /** What another wrote into the same fields meanwhile, beside what was typed here: field by field one says which stands. */
  let {
    edit,
    clash,
    record,
    citekey,
  }: {
    edit: ReturnType<typeof editing>;
    clash: NonNullable<ReturnType<typeof editing>['clash']>;
    record: SourceRecord;
    citekey: string;
  } = $props();
  // What is there stands, unless one says otherwise.
  // svelte-ignore state_referenced_locally
  const picked = $state(Object.fromEntries(clash.fields.map(({ field }) => [field, 'theirs'])));
  const values = $derived(record as unknown as Record<string, unknown>);
  const shown = (field: string, value: unknown) =>
    value === null || value === undefined || value === ''
      ? '(nothing)'
      : field === 'tags'
        ? (value as string[]).join(', ')
        : valueText(field, value) || String(value);
  const theirs = (field: string) =>
    shown(field, field === 'tags' ? record.retexa.tags : field === 'citekey' ? citekey : values[field]);
  const label = (field: string) =>
    field === 'tags' ? 'Tags' : field === 'citekey' ? 'Citekey' : fieldName(field);
</script>

<Dialog open title="Changed by somebody else meanwhile" size="md" onclose={() => edit.settle([])}>
  <p class="mb-3">
    While you typed, another person or window wrote into {clash.fields.length === 1
      ? 'the same field'
      : 'the same fields'}. Nothing was written over; what is to stand?
  </p>
  {#each clash.fields as { field, typed } (field)}
    <fieldset>
      <legend>{label(field)}</legend>
      {#each [['theirs', 'There now', theirs(field)], ['mine', 'Yours', shown(field, typed)]] as [whose, name, text] (whose)}
        <Radio name="clash-{field}" value={whose!} bind:group={picked[field]}
          ><span class="small-label">{name}</span> {text}</Radio
        >
      {/each}
    </fieldset>
  {/each}
  <div class="mt-4 flex gap-2">
    <Button
      look="main"
      onclick={() =>
        edit.settle(clash.fields.map(({ field }) => field).filter((field) => picked[field] === 'mine'))}
      >Let it stand so</Button
    >
  </div>
</Dialog>

<style>
  fieldset {
    padding: 8px 0;
    border-top: 1px solid var(--rule);
  }
  legend {
    float: left;
    width: 100%;
    font-weight: 650;
  }
  .small-label {
    display: inline-block;
    min-width: 76px;
  }
</style>
