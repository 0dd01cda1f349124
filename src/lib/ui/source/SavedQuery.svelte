<script lang="ts">
  import { page } from '$app/state';
  import { queryWords } from '$lib/core/forms';
  import { filtersAsQuery, parseQuery, printQuery, valuesOf, withField } from '$lib/core/query';
  import type { SavedQuery } from '$lib/server/queries';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Field, Input } from '../kit';

  /** Keeps what is looked for by a name, or lets go of it. */
  let {
    saved,
    section,
  }: {
    saved: SavedQuery[];
    /** What the section is called that is looked at: it is asked for by its name. */
    section?: string | undefined;
  } = $props();

  let naming = $state(false);
  const query = $derived.by(() => {
    const asked = parseQuery(filtersAsQuery(Object.fromEntries(page.url.searchParams)));
    return printQuery(section ? withField(asked, 'in', [...valuesOf(asked, 'in'), section]) : asked);
  });
  const kept = $derived(saved.find((one) => one.query === query));

  const { form, errors, enhance, submitting } = formOf(queryWords, { name: '' }, async (said) => {
    await call('POST', '/api/queries', { name: said.name, query });
    done(`Kept as ${said.name}: it stands in the path, with its count.`);
    said.name = '';
    naming = false;
  });
  async function forget() {
    const gone = await attempt(() => call<SavedQuery>('DELETE', `/api/queries/${kept!.id}`, {}));
    if (gone)
      doneWithUndo(`No longer kept: ${gone.name}.`, () =>
        call('POST', '/api/queries', { name: gone.name, query: gone.query }),
      );
  }
</script>

{#if kept}
  <Button small look="quiet" onclick={forget}>Kept as {kept.name}: let go</Button>
{:else if naming}
  <form class="flex items-center gap-1" method="POST" use:enhance>
    <Field quiet label="Name of this query" errors={$errors.name}>
      {#snippet children(attributes)}<Input
          look="chip"
          autofocus
          placeholder="Name of this query"
          bind:value={$form.name}
          onkeydown={(e: KeyboardEvent) => {
            if (e.key === 'Escape') naming = false;
          }}
          {...attributes}
        />{/snippet}
    </Field>
    <Button small type="submit" disabled={$submitting}>Keep</Button>
  </form>
{:else if query}
  <Button small look="quiet" onclick={() => (naming = true)}>Keep this query</Button>
{/if}
