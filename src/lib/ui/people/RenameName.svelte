<script lang="ts">
  import { untrack } from 'svelte';
  import { renameWords } from '$lib/core/forms';
  import type { Spelled } from '$lib/core/duplicates';
  import type { Made } from '$lib/server/many';
  import { call } from '../frame/client';
  import { countOf } from '../frame/counting';
  import { formOf } from '../frame/forms';
  import { attempt, doneWith } from '../frame/toasts.svelte';
  import OneField from './OneField.svelte';

  interface Props {
    kind: Spelled;
    name: string;
    /** In how many sources it stands. */
    n: number;
    /** What it is called to begin with, where that is not itself. */
    to?: string | undefined;
    onclose: () => void;
  }
  /** Calls a name otherwise wherever it stands, once its sources are seen. */
  let { kind, name, n, to, onclose }: Props = $props();
  let named = $state.raw<{ id: string; label: string; title: string }[]>();
  $effect(() => {
    const address = `/api/people?kind=${kind}&name=${encodeURIComponent(name)}`;
    void attempt(() => call<NonNullable<typeof named>>('GET', address)).then((found) => (named = found));
  });

  const { form, errors, enhance, submitting } = formOf(
    renameWords,
    untrack(() => ({ kind, name, to: to ?? name })),
    async (said) => {
      if (said.to === said.name) return onclose();
      const made = await call<Made>('POST', '/api/people', said);
      onclose();
      await doneWith(
        made,
        n,
        (changed) => `${said.name} is called ${said.to} now, in ${countOf(changed, 'source')}.`,
      );
    },
  );
</script>

<form method="POST" use:enhance aria-label="Another name for {name}">
  <OneField
    label="New name of {name}"
    sends="Rename in {countOf(n, 'source')}"
    bind:value={$form.to}
    errors={$errors.to}
    sending={$submitting}
    {onclose}
  />
  <ul class="small-label">
    {#each named ?? [] as one (one.id)}<li>{one.label}. {one.title}</li>{/each}
    {#if named && named.length < n}<li>and {(n - named.length).toLocaleString('en')} more</li>{/if}
  </ul>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
    width: 100%;
  }
  ul {
    max-height: 30vh;
    overflow-y: auto;
  }
</style>
