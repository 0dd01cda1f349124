<script lang="ts">
  import { page } from '$app/state';
  import { KIND_LABELS, PASSAGE_KINDS, TINTS } from '$lib/core/passages';
  import type { PassageItem } from '$lib/server/passages';
  import FilterSelect from '$lib/ui/frame/FilterSelect.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';
  import { narrowedBy } from '$lib/ui/frame/narrowing';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import FromPrint from '$lib/ui/passages/FromPrint.svelte';
  import { GROUPINGS, groupsOf, type Grouping } from '$lib/ui/passages/groups';
  import PassageOut from '$lib/ui/passages/PassageOut.svelte';
  import PassageRow from '$lib/ui/passages/PassageRow.svelte';
  import PassageSelection from '$lib/ui/passages/PassageSelection.svelte';
  import { selected, selectWithin } from '$lib/ui/passages/selection.svelte';

  let { data } = $props();
  /** What orders the view, and narrows nothing. */
  const ORDER = ['sort', 'group'];
  const filtered = $derived([...page.url.searchParams.keys()].some((name) => !ORDER.includes(name)));
  const grouping = $derived(GROUPINGS.find((g) => g === narrowedBy('group')) as Grouping | undefined);
  const groups = $derived(groupsOf(data.items, grouping));
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  const title = $derived(
    data.source
      ? `Passages of ${data.source.label}`
      : (data.projects.find((p) => p.id === data.projectId)?.name ?? 'Passages'),
  );

  $effect(() => selectWithin(data.projectId));
  const select = (ids: string[], yes: boolean) =>
    ids.forEach((id) => (yes ? selected.add(id) : selected.delete(id)));
  const idsOf = (items: readonly PassageItem[]) => items.map((p) => p.id);
  /** Those selected, in the order of the view; those that are not in it come last. */
  const chosen = $derived([
    ...idsOf(data.items).filter((id) => selected.has(id)),
    ...[...selected].filter((id) => !data.items.some((p) => p.id === id)),
  ]);

  let printed = $state.raw<{ source: { id: string; label: string }; passage?: PassageItem } | undefined>();
  let writing = $state(false);
  function write(what: NonNullable<typeof printed>) {
    printed = what;
    writing = true;
  }
</script>

<svelte:head><title>{title} · Retexa</title></svelte:head>

<PageHead>
  <h1>{data.source ? `Passages of ${data.source.label}` : 'Passages'}</h1>
  <span class="sub"
    >{data.total.toLocaleString('en')}
    {filtered ? 'found' : data.projectId ? 'in this project' : 'in the library'}</span
  >
  <span class="flex-1"></span>
  {#if data.source}<Button onclick={() => write({ source: data.source! })}>Write one from print</Button>{/if}
  <PassageOut ids={data.ids} {title} />
</PageHead>
<div class="narrowing" role="group" aria-label="Narrow and order">
  <FindField what="passages" />
  <FilterSelect
    name="kind"
    label="Kind"
    any="Any kind"
    options={PASSAGE_KINDS.map((kind) => ({ value: kind, text: KIND_LABELS[kind] }))}
  />
  <FilterSelect
    name="tint"
    label="Tint"
    any="Any tint"
    options={TINTS.map((tint) => ({ value: tint, text: capital(tint) }))}
  />
  {#if data.tags.length}<FilterSelect
      name="tag"
      label="Tag"
      any="Any tag"
      options={data.tags.map(({ tag, n }) => ({ value: tag, text: `${tag} (${n})` }))}
    />{/if}
  {#if data.sections.length}<FilterSelect
      name="section"
      label="Section"
      any="Any section"
      options={data.sections.map(({ id, name }) => ({ value: id, text: name }))}
    />{/if}
  {#if data.people.length > 1}<FilterSelect
      name="person"
      label="Person"
      any="Anybody"
      options={data.people.map(({ id, name, n }) => ({ value: id, text: `${name} (${n})` }))}
    />{/if}
  <FilterSelect
    name="state"
    label="What is the matter"
    any="Any state"
    options={[
      { value: 'no place', text: 'Without a place' },
      { value: 'no own words', text: 'Own words missing' },
      { value: 'lost', text: 'Lost' },
      { value: 'changed', text: 'Changed words' },
      { value: 'open task', text: 'Something to do' },
      { value: 'only for me', text: 'Only for me' },
    ]}
  />
  {#if filtered}<Button small look="quiet" href="/passages">Show all</Button>{/if}
  <div class="ml-auto flex gap-1.5">
    <FilterSelect
      name="sort"
      label="Order"
      any="Newest first"
      options={[{ value: 'source', text: 'By source and place' }]}
    />
    <FilterSelect
      name="group"
      label="Groups"
      any="No groups"
      options={GROUPINGS.map((by) => ({ value: by, text: `By ${by}` }))}
    />
  </div>
</div>

{#if data.total === 0}
  <Empty>
    {#if filtered}
      <h2>Nothing fits</h2>
      <p>No passage fits what you look for. <a class="link" href="/passages">Show all passages</a></p>
    {:else}
      <h2>No passages yet</h2>
      <p>
        Open the copy of a source and select a sentence in it, or write one down from print on the sheet of
        its source. It is kept here with its place, its point and your own words.
        <a class="link" href="/sources">Go to the sources</a>
      </p>
    {/if}
  </Empty>
{:else}
  {#each groups as group (group.head + (group.href ?? ''))}
    {#if group.head}
      {@const all = group.items.every((p) => selected.has(p.id))}
      <h2 class="head">
        {#if group.href}<a href={group.href}>{group.head}</a>{:else}{group.head}{/if}
        <span class="small-label">{group.items.length.toLocaleString('en')}</span>
        <Button small look="quiet" onclick={() => select(idsOf(group.items), !all)}
          >{all ? 'Select none of them' : 'Select them'}</Button
        >
      </h2>
    {/if}
    <ul>
      {#each group.items as passage (passage.id)}
        <PassageRow
          {passage}
          selected={selected.has(passage.id)}
          inDraft={data.inDraft[passage.id]}
          onselect={(yes) => select([passage.id], yes)}
          onedit={() => write({ source: { id: passage.sourceId, label: passage.sourceLabel }, passage })}
        />
      {/each}
    </ul>
  {/each}
  {#if data.total > data.shown}<p class="small-label p-6">
      The first {data.shown} are shown. Narrow the list to see the others.
    </p>{/if}
  {#if chosen.length}<PassageSelection
      ids={chosen}
      sections={data.sections}
      tags={data.tags.map(({ tag }) => tag)}
      {title}
      onclear={() => selected.clear()}
    />{/if}
{/if}
{#if printed}{#key printed}<FromPrint
      bind:open={writing}
      source={printed.source}
      passage={printed.passage}
      offeredTags={data.tags.map(({ tag }) => tag)}
    />{/key}{/if}

<style>
  .narrowing {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    padding: 8px 26px;
    border-bottom: 1px solid var(--rule);
  }
  .head {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 14px 26px 6px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
    font-size: 15px;
    font-weight: 650;
  }
</style>
