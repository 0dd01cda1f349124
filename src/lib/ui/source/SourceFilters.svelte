<script lang="ts">
  import { Button, Select } from '../kit';
  import { TYPE_LABELS, type CslType } from '$lib/core/source';
  import { parseQuery, wordsSought } from '$lib/core/query';
  import type { Counts } from '$lib/server/overview';
  import type { facetsOf } from '$lib/server/sources';
  import FilterSelect from '../frame/FilterSelect.svelte';
  import FindField from '../frame/FindField.svelte';
  import QueryHelp from '../frame/QueryHelp.svelte';
  import { narrow, narrowedBy } from '../frame/narrowing';
  import type { SavedQuery as SavedQueries } from '$lib/server/queries';
  import SavedQuery from './SavedQuery.svelte';
  import YearFilter from './YearFilter.svelte';

  /** What narrows and orders the list of sources. */
  let {
    facets,
    counts,
    sort,
    filtered,
    saved,
  }: {
    facets: Awaited<ReturnType<typeof facetsOf>>;
    counts: Pick<Counts, 'findings' | 'intake'>;
    sort: string;
    /** The list is narrowed by something. */
    filtered: boolean;
    saved: SavedQueries[];
  } = $props();

  /** The order where none is wished. */
  const usual = $derived(wordsSought(parseQuery(narrowedBy('q'))) ? 'fit' : 'author');
  const toggleState = (state: string) => narrow({ state: narrowedBy('state') === state ? undefined : state });
</script>

<div class="filters">
  <FindField what="sources" wide />
  <QueryHelp />
  <FilterSelect
    name="type"
    label="Type"
    any="Any type"
    options={facets.types.map(({ type, n }) => ({
      value: type,
      text: `${TYPE_LABELS[type as CslType] ?? type} · ${n}`,
    }))}
  />
  <FilterSelect
    name="tag"
    label="Tag"
    any="Any tag"
    options={facets.tags.map(({ tag, n }) => ({ value: tag, text: `${tag} · ${n}` }))}
  />
  <Button
    look="chip"
    aria-pressed={narrowedBy('state') === 'findings'}
    onclick={() => toggleState('findings')}>With findings · {counts.findings}</Button
  >
  <Button look="chip" aria-pressed={narrowedBy('state') === 'intake'} onclick={() => toggleState('intake')}
    >Not checked · {counts.intake}</Button
  >
  <Select
    look="chip"
    aria-label="Order"
    value={sort}
    onchange={(e) => narrow({ sort: e.currentTarget.value === usual ? undefined : e.currentTarget.value })}
  >
    {#if usual === 'fit'}<option value="fit">Best fit first</option>{/if}
    <option value="author">By author</option>
    <option value="title">By title</option>
    <option value="newest">Newest first</option>
    <option value="oldest">Oldest first</option>
    <option value="added">Last added</option>
  </Select>
  <YearFilter years={facets.years} />
  {#if filtered}<Button small look="quiet" href="/sources">Show all</Button><SavedQuery {saved} />{/if}
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
