<script lang="ts">
  import { Button, Select } from '../kit';
  import { parseQuery, toggled, valuesOf, wordsSought, type QueryField } from '$lib/core/query';
  import type { Counts } from '$lib/server/overview';
  import FindField from '../frame/FindField.svelte';
  import QueryHelp from '../frame/QueryHelp.svelte';
  import { narrow, narrowedBy, narrowTo, queried } from '../frame/narrowing';
  import type { SavedQuery as SavedQueries } from '$lib/server/queries';
  import { FIELD_NAMES, valueName } from './naming';
  import SavedQuery from './SavedQuery.svelte';
  import YearFilter from './YearFilter.svelte';

  /** What narrows and orders the list of sources. */
  let {
    years,
    counts,
    sort,
    filtered,
    saved,
    section,
    narrowing = $bindable(),
  }: {
    years: { year: number; n: number }[];
    counts: Pick<Counts, 'findings' | 'intake'>;
    sort: string;
    /** The list is narrowed by something. */
    filtered: boolean;
    saved: SavedQueries[];
    /** What the section is called that is looked at. */
    section: string | undefined;
    /** What can be narrowed by is shown. */
    narrowing: boolean;
  } = $props();

  const inSection = $derived(Boolean(narrowedBy('section')) && narrowedBy('section') !== 'none');
  /** The order where none is wished. */
  const usual = $derived(wordsSought(parseQuery(narrowedBy('q'))) ? 'fit' : inSection ? 'own' : 'author');
  const query = $derived(queried());
  const asks = (state: string) => valuesOf(query, 'state').includes(state);
  /** What the query asks for by fields that are offered, each as something to take off. */
  const asked = $derived(
    (Object.keys(FIELD_NAMES) as QueryField[])
      .flatMap((field) => valuesOf(query, field).map((value) => ({ field, value })))
      .filter(({ field, value }) => field !== 'state' || !['found', 'unchecked'].includes(value)),
  );
</script>

<div class="filters">
  <FindField what="sources" wide />
  <QueryHelp />
  <Button
    look="chip"
    aria-pressed={narrowing}
    aria-expanded={narrowing}
    onclick={() => (narrowing = !narrowing)}>Narrow by…</Button
  >
  <YearFilter {years} />
  <Button look="chip" aria-pressed={asks('found')} onclick={() => narrowTo(toggled(query, 'state', 'found'))}
    >With findings · {counts.findings}</Button
  >
  <Button
    look="chip"
    aria-pressed={asks('unchecked')}
    onclick={() => narrowTo(toggled(query, 'state', 'unchecked'))}>Not checked · {counts.intake}</Button
  >
  {#each asked as { field, value } (`${field} ${value}`)}
    <Button
      look="chip"
      class="max-w-56"
      aria-pressed={true}
      title="Narrow by it no longer"
      onclick={() => narrowTo(toggled(query, field, value))}
      ><span class="truncate">{FIELD_NAMES[field]}: {valueName(field, value)}</span> ×</Button
    >
  {/each}
  <Select
    look="chip"
    aria-label="Order"
    value={sort}
    onchange={(e) => narrow({ sort: e.currentTarget.value === usual ? undefined : e.currentTarget.value })}
  >
    {#if usual === 'fit'}<option value="fit">Best fit first</option>{/if}
    {#if inSection}<option value="own">As in the section</option>{/if}
    <option value="author">By author</option>
    <option value="title">By title</option>
    <option value="newest">Newest first</option>
    <option value="oldest">Oldest first</option>
    <option value="added">Last added</option>
    <option value="kind">By kind</option>
    {#if sort.includes(',')}<option value={sort}>By several columns</option>{/if}
  </Select>
  {#if filtered}<Button small look="quiet" href="/sources">Show all</Button><SavedQuery
      {saved}
      {section}
    />{/if}
</div>

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px;
    width: 100%;
  }
</style>
