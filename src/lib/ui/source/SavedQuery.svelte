<script lang="ts">
  import { page } from '$app/state';
  import { filtersAsQuery, parseQuery, printQuery, valuesOf, withField } from '$lib/core/query';
  import type { SavedQuery } from '$lib/server/queries';
  import { call } from '../frame/client';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Input } from '../kit';

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
  let name = $state('');
  const query = $derived.by(() => {
    const asked = parseQuery(filtersAsQuery(Object.fromEntries(page.url.searchParams)));
    return printQuery(section ? withField(asked, 'in', [...valuesOf(asked, 'in'), section]) : asked);
  });
  const kept = $derived(saved.find((one) => one.query === query));

  async function save() {
    if (!name.trim()) return;
    const made = await attempt(() => call<{ id: string }>('POST', '/api/queries', { name, query }));
    if (!made) return;
    done(`Kept as ${name.trim()}: it stands in the path, with its count.`);
    [naming, name] = [false, ''];
  }
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
  <form
    class="flex items-center gap-1"
    onsubmit={(e) => {
      e.preventDefault();
      void save();
    }}
  >
    <Input
      look="chip"
      autofocus
      placeholder="Name of this query"
      aria-label="Name of this query"
      bind:value={name}
      onkeydown={(e: KeyboardEvent) => {
        if (e.key === 'Escape') naming = false;
      }}
    />
    <Button small type="submit" disabled={!name.trim()}>Keep</Button>
  </form>
{:else if query}
  <Button small look="quiet" onclick={() => (naming = true)}>Keep this query</Button>
{/if}
