<script lang="ts">
  import {
    credibilityText,
    fieldName,
    translationsOf,
    translationsText,
    valueText,
    type Credibility,
    type SourceRecord,
    type Translation,
  } from '$lib/core/source';
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
        : field === 'credibility'
          ? credibilityText(value as Credibility) || '(nothing)'
          : field === 'translations'
            ? translationsText(value as Translation[]) || '(nothing)'
            : valueText(field, value) || String(value);
  const theirs = (field: string) =>
    shown(
      field,
      {
        ...values,
        citekey,
        tags: record.retexa.tags,
        credibility: record.retexa.credibility,
        translations: translationsOf(record),
      }[field],
    );
  function label(field: string): string {
    const name =
      field === 'translations'
        ? 'titles in other languages'
        : ['tags', 'citekey', 'credibility'].includes(field)
          ? field
          : fieldName(field);
    return name.charAt(0).toUpperCase() + name.slice(1);
  }
</script>

<Dialog open title="Changed by somebody else meanwhile" size="md" onclose={() => edit.settle([])}>
  <p class="mb-3">
    While you typed, another person or window wrote into {clash.fields.length === 1
      ? 'the same field'
      : 'the same fields'}. Nothing was written over; what is to stand?
  </p>
  {#each clash.fields as { field, typed } (field)}
    <div class="field" role="group" aria-label={label(field)}>
      <p class="name">{label(field)}</p>
      {#each [['theirs', 'There now', theirs(field)], ['mine', 'Yours', shown(field, typed)]] as [whose, name, text] (whose)}
        <Radio name="clash-{field}" value={whose!} bind:group={picked[field]}
          ><span class="small-label">{name}</span> {text}</Radio
        >
      {/each}
    </div>
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
  .field {
    display: grid;
    gap: 6px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .name {
    font-weight: 650;
  }
  .small-label {
    display: inline-block;
    flex: none;
    min-width: 76px;
  }
</style>
