<script lang="ts">
  import { page } from '$app/state';
  import { filtersAsQuery } from '$lib/core/query';
  import type { SavedQuery } from '$lib/server/queries';
  import { call } from '../frame/client';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Input } from '../kit';

  /** Keeps what is looked for by a name, or lets go of it. */
  let { saved }: { saved: SavedQuery[] } = $props();

  let naming = $state(false);
  let name = $state('');
  const query = $derived(filtersAsQuery(Object.fromEntries(page.url.searchParams)));
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
