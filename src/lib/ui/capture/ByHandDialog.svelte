<script lang="ts">
  import { Button, Dialog, Field, Input, Select } from '../kit';
  import { goto } from '$app/navigation';
  import { byHandWords } from '$lib/core/forms';
  import { CSL_TYPES, TYPE_LABELS } from '$lib/core/source';
  import { byHand } from './byhand.svelte';
  import KnownAlready from './KnownAlready.svelte';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';

  const COMMON = [
    'article-journal',
    'book',
    'chapter',
    'thesis',
    'report',
    'article-newspaper',
    'webpage',
    'paper-conference',
  ] as const;
  const rest = CSL_TYPES.filter((t) => !(COMMON as readonly string[]).includes(t));

  const { form, errors, enhance } = formOf(byHandWords, byHand.given, async (said) => {
    const filled = Object.fromEntries(Object.entries(said).filter(([, v]) => v?.trim()));
    const made = await call<{ id: string }>('POST', '/api/sources', filled);
    byHand.open = false;
    await goto(`/sources/${made.id}?new=1`);
  });
  const KNOWN = [
    ['URL', 'Address'],
    ['DOI', 'DOI'],
    ['ISBN', 'ISBN'],
  ] as const;
</script>

<Dialog bind:open={byHand.open} title="Start by hand" size="sm">
  <form method="POST" use:enhance class="grid gap-3">
    <label>
      <span class="small-label">What kind of source is it?</span>
      <Select bind:value={$form.type}>
        {#each COMMON as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
        <option disabled>──────</option>
        {#each rest as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
      </Select>
    </label>
    <Field label="Title, if it has one" errors={$errors.title}>
      {#snippet children(attributes)}<Input
          class="font-serif"
          bind:value={$form.title}
          {...attributes}
        />{/snippet}
    </Field>
    {#each KNOWN.filter(([field]) => byHand.given[field]) as [field, label] (field)}
      <Field {label} errors={$errors[field]}>
        {#snippet children(attributes)}<Input bind:value={$form[field]} {...attributes} />{/snippet}
      </Field>
    {/each}
    <KnownAlready given={$form} />
    <div class="flex items-center gap-3">
      <Button look="main" type="submit">Start the source</Button>
      <span class="small-label">It waits in Intake; the next page has all its fields.</span>
    </div>
  </form>
</Dialog>
