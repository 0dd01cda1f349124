<script lang="ts">
  import { page } from '$app/state';
  import { openByHand } from '$lib/ui/capture/byhand.svelte';
  import QueryProblems from '$lib/ui/frame/QueryProblems.svelte';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { call } from '$lib/ui/frame/client';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import ColumnMenu from '$lib/ui/source/ColumnMenu.svelte';
  import { sourceColumns } from '$lib/ui/source/columns.svelte';
  import { chosen, selectWithin } from '$lib/ui/source/selection.svelte';
  import SelectionBar from '$lib/ui/source/SelectionBar.svelte';
  import SourceFilters from '$lib/ui/source/SourceFilters.svelte';
  import SourceRows from '$lib/ui/source/SourceRows.svelte';

  let { data } = $props();
  let inColumns = $state(false);
  const columns = sourceColumns();
  const filtered = $derived([...page.url.searchParams.keys()].some((k) => k !== 'sort'));

  /** Selects all that fit, seen or not. */
  async function chooseAll() {
    const all = await attempt(() =>
      call<{ ids: string[]; total: number }>('GET', `/api/sources/ids${page.url.search}`),
    );
    if (!all) return;
    for (const id of all.ids) chosen.add(id);
    if (all.ids.length < all.total)
      done(
        `The first ${all.ids.length.toLocaleString('en')} of ${all.total.toLocaleString('en')} are selected: no more can be at once.`,
      );
  }

  $effect(() => selectWithin(data.projectId));
  // What is seen whole tells what is there: a source that is gone is not selected any more.
  $effect(() => {
    if (filtered || data.total > data.items.length) return;
    for (const id of chosen) if (!data.items.some((i) => i.id === id)) chosen.delete(id);
  });
</script>

<svelte:head><title>Sources · Retexa</title></svelte:head>

<PageHead>
  <h1>Sources</h1>
  <span class="sub">
    {data.total.toLocaleString('en')}
    {filtered ? 'found' : data.projectId ? 'in this project' : 'in the library'}, as they print in
    <a class="link" href="/references">{data.look.name} · {data.look.locale}</a>
  </span>
  <span class="flex-1"></span>
  <Button look="chip" aria-pressed={!inColumns} onclick={() => (inColumns = false)}>References</Button>
  <Button look="chip" aria-pressed={inColumns} onclick={() => (inColumns = true)}>Columns</Button>
  {#if inColumns}<ColumnMenu {columns} />{/if}
  <SourceFilters facets={data.facets} counts={data.counts} sort={data.sort} {filtered} saved={data.saved} />
</PageHead>

{#if data.total === 0}
  <Empty>
    {#if filtered}
      <h2>Nothing fits</h2>
      <QueryProblems text={page.url.searchParams.get('q') ?? ''} />
      <p>No source fits what you look for. <a class="link" href="/sources">Show all sources</a></p>
    {:else}
      <h2>No sources yet</h2>
      <p>
        Paste the address or DOI of something you read into the field at the top, <a
          class="link"
          href="/import">import a file of references</a
        >, or <Button look="link" onclick={() => openByHand()}>start one by hand</Button>.
      </p>
    {/if}
  </Empty>
{:else}
  <SourceRows
    items={data.items}
    total={data.total}
    sort={data.sort}
    look={data.look}
    columns={inColumns ? columns : undefined}
  />
{/if}

{#if chosen.size}
  <SelectionBar
    ids={[...chosen]}
    projects={data.projects}
    total={data.total}
    onall={chooseAll}
    onclear={() => chosen.clear()}
  />
{/if}
