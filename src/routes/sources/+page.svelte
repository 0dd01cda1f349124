<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { openByHand } from '$lib/ui/capture/byhand.svelte';
  import QueryProblems from '$lib/ui/frame/QueryProblems.svelte';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import { call } from '$lib/ui/frame/client';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import ColumnMenu from '$lib/ui/source/ColumnMenu.svelte';
  import NarrowPanel from '$lib/ui/source/NarrowPanel.svelte';
  import OutlineTree from '$lib/ui/outline/OutlineTree.svelte';
  import { sourceColumns } from '$lib/ui/source/columns.svelte';
  import { chosen, selectWithin } from '$lib/ui/source/selection.svelte';
  import SelectionBar from '$lib/ui/source/SelectionBar.svelte';
  import SourceFilters from '$lib/ui/source/SourceFilters.svelte';
  import SourceRows from '$lib/ui/source/SourceRows.svelte';

  let { data } = $props();
  let inColumns = $state(false);
  let inSections = $state(false);
  let narrowing = $state(false);
  const section = $derived(data.outlines.find((s) => s.id === page.url.searchParams.get('section')));
  onMount(() => (inSections = Boolean(section) || localStorage.getItem('retexa-sections') === 'true'));
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
  {#if section}<span class="serif section">§ {section.name}</span>{/if}
  <span class="sub">
    {data.total.toLocaleString('en')}
    {filtered && !section
      ? 'found'
      : section
        ? 'in this section'
        : data.projectId
          ? 'in this project'
          : 'in the library'}, as they print in
    <a class="link" href={section ? `/references?scope=section:${section.id}` : '/references'}
      >{data.look.name} · {data.look.locale}</a
    >
  </span>
  <span class="flex-1"></span>
  <Button look="chip" aria-pressed={!inColumns} onclick={() => (inColumns = false)}>References</Button>
  <Button look="chip" aria-pressed={inColumns} onclick={() => (inColumns = true)}>Columns</Button>
  {#if inColumns}<ColumnMenu {columns} />{/if}
  <Button
    look="chip"
    aria-pressed={inSections}
    aria-expanded={inSections}
    onclick={() => {
      inSections = !inSections;
      localStorage.setItem('retexa-sections', String(inSections));
    }}>Sections</Button
  >
  <SourceFilters
    years={data.years}
    counts={data.counts}
    sort={data.sort}
    {filtered}
    saved={data.saved}
    section={section?.name}
    bind:narrowing
  />
</PageHead>
{#if narrowing}<NarrowPanel of={data.items} />{/if}

<div class="beside">
  {#if inSections}
    <OutlineTree
      outlines={data.outlines}
      projects={data.projects}
      projectId={data.projectId}
      chosen={[...chosen]}
    />
  {/if}
  <div class="list">
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
        drags={inSections}
        section={data.sort === 'own' ? section?.id : undefined}
      />
    {/if}
  </div>
</div>

{#if chosen.size}
  <SelectionBar
    ids={[...chosen]}
    projects={data.projects}
    outlines={data.outlines}
    {section}
    total={data.total}
    onall={chooseAll}
    onclear={() => chosen.clear()}
  />
{/if}

<style>
  .section {
    font-size: 17px;
  }
  .beside {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .list {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
  }
  @media (max-width: 900px) {
    .beside {
      flex-direction: column;
    }
  }
</style>
