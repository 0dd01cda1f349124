<script lang="ts">
  import { typedValue, type MergeField } from '$lib/core/duplicates';
  import { fieldLabel, TYPE_LABELS } from '$lib/core/source';
  import { Input, Select } from '../kit';

  interface Props {
    field: MergeField;
    start: string;
    onvalue: (value: unknown) => void;
    ondone: () => void;
  }
  /** A value of one's own for a field in which the sources differ. Enter takes it, Escape leaves it. */
  let { field, start, onvalue, ondone }: Props = $props();
  // svelte-ignore state_referenced_locally
  let text = $state(field === 'type' ? '' : start);
  let wrong = $state(false);
  let input: HTMLInputElement | undefined = $state();
  let select: HTMLSelectElement | undefined = $state();
  const label = $derived(field === 'type' ? 'Kind of source' : fieldLabel(field));

  // The field is there when the component around it has been made.
  $effect(() => (input ?? select)?.focus());

  function take() {
    const typed = typedValue(field, text);
    wrong = !typed;
    if (!typed) return;
    onvalue(typed.value);
    ondone();
  }
  function onkeydown(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== 'Escape') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Enter') take();
    else ondone();
  }
</script>

{#if field === 'type'}
  <Select
    bind:value={text}
    bind:element={select}
    aria-label="{label}, typed anew"
    {onkeydown}
    onchange={take}
  >
    {#each Object.entries(TYPE_LABELS) as [type, name] (type)}<option value={type}>{name}</option>{/each}
  </Select>
{:else}
  <Input
    bind:value={text}
    bind:element={input}
    aria-label="{label}, typed anew"
    aria-invalid={wrong}
    {onkeydown}
  />
{/if}
<span class="small-label">{wrong ? 'It cannot be that.' : 'Enter takes it, Esc leaves it'}</span>
