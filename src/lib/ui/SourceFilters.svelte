<script lang="ts">
  import { TYPE_LABELS, type CslType } from '$lib/core/source';
  import type { Counts } from '$lib/server/services/overview';
  import type { facetsOf } from '$lib/server/services/sources';
  import { narrow, narrowedBy } from './narrowing';
  import YearBars from './YearBars.svelte';
  import FindField from './FindField.svelte';

  /** What narrows and orders the list of sources. */
  let {
    facets,
    counts,
    sort,
    filtered,
  }: {
    facets: Awaited<ReturnType<typeof facetsOf>>;
    counts: Pick<Counts, 'findings' | 'intake'>;
    sort: string;
    /** The list is narrowed by something. */
    filtered: boolean;
  } = $props();

  const toggleState = (state: string) => narrow({ state: narrowedBy('state') === state ? undefined : state });
</script>

<div class="filters">
  <FindField what="sources" />
  <select
    class="chip"
    class:on={narrowedBy('type')}
    aria-label="Type"
    value={narrowedBy('type')}
    onchange={(e) => narrow({ type: e.currentTarget.value })}
  >
    <option value="">Any type</option>
    {#each facets.types as { type, n } (type)}<option value={type}
        >{TYPE_LABELS[type as CslType] ?? type} · {n}</option
      >{/each}
  </select>
  <select
    class="chip"
    class:on={narrowedBy('tag')}
    aria-label="Tag"
    value={narrowedBy('tag')}
    onchange={(e) => narrow({ tag: e.currentTarget.value })}
  >
    <option value="">Any tag</option>
    {#each facets.tags as { tag, n } (tag)}<option value={tag}>{tag} · {n}</option>{/each}
  </select>
  <button
    class="chip"
    aria-pressed={narrowedBy('state') === 'findings'}
    onclick={() => toggleState('findings')}>With findings · {counts.findings}</button
  >
  <button class="chip" aria-pressed={narrowedBy('state') === 'intake'} onclick={() => toggleState('intake')}
    >Not checked · {counts.intake}</button
  >
  <select
    class="chip"
    aria-label="Order"
    value={sort}
    onchange={(e) => narrow({ sort: e.currentTarget.value === 'author' ? undefined : e.currentTarget.value })}
  >
    <option value="author">By author</option>
    <option value="title">By title</option>
    <option value="newest">Newest first</option>
    <option value="oldest">Oldest first</option>
    <option value="added">Last added</option>
  </select>
  {#if filtered}<a class="btn quiet small" href="/sources">Show all</a>{/if}
  <span class="flex-1"></span>
  <YearBars
    years={facets.years}
    from={narrowedBy('from')}
    to={narrowedBy('to')}
    onrange={(from, to) => narrow({ from, to })}
  />
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
