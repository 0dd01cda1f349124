<script lang="ts">
  import type { Snippet } from 'svelte';
  import { byHandWords } from '$lib/core/forms';
  import { CSL_TYPES, recognise, TYPE_LABELS, type CslType } from '$lib/core/source';
  import { Button, Field, Input, Select } from '../kit';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { done } from '../frame/toasts.svelte';
  import KnownAlready from './KnownAlready.svelte';

  interface Props {
    type: CslType;
    /** Goes with the source: where it is filed. */
    into: () => object;
    /** An address it is of, if it has one. */
    address?: string | undefined;
    onlookup: (isbn: string) => void;
    /** Where it is filed, as it is chosen. */
    where: Snippet;
  }
  let { type: wanted, into, address, onlookup, where }: Props = $props();
  // svelte-ignore state_referenced_locally
  const { form, errors, enhance } = formOf(
    byHandWords,
    { type: wanted, title: '', ISBN: '' },
    async (said) => {
      const filled = Object.fromEntries(Object.entries(said).filter(([, v]) => v?.trim()));
      await call('POST', '/api/sources', { ...filled, ...(address ? { URL: address } : {}), into: into() });
      done('It waits in Intake.');
      $form = { type: said.type, title: '', ISBN: '' };
    },
  );
  const [title, isbn] = $derived([$form.title ?? '', $form.ISBN ?? '']);
</script>

<form method="POST" use:enhance>
  <Field label="Kind of source">
    <Select bind:value={$form.type}>
      {#each CSL_TYPES as t (t)}<option value={t}>{TYPE_LABELS[t]}</option>{/each}
    </Select>
  </Field>
  <Field label="Title" errors={$errors.title}>
    {#snippet children(attributes)}<Input
        class="font-serif"
        bind:value={$form.title}
        {...attributes}
      />{/snippet}
  </Field>
  <div class="flex items-end gap-2">
    <Field label="ISBN, if it has one" errors={$errors.ISBN}>
      {#snippet children(attributes)}<Input bind:value={$form.ISBN} {...attributes} />{/snippet}
    </Field>
    <Button disabled={recognise(isbn).kind !== 'isbn'} onclick={() => onlookup(isbn)}>Look it up</Button>
  </div>
  <KnownAlready given={{ ...$form, ...(address ? { URL: address } : {}) }} target="_blank" />
  {@render where()}
  <Button look="main" type="submit" disabled={!title.trim() && !isbn.trim()}>Start the source</Button>
</form>
