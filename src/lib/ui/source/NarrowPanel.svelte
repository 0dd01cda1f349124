<script lang="ts">
  import { toggled, valuesOf, withField } from '$lib/core/query';
  import type { TagLook } from '$lib/core/source';
  import type { FacetValue, OfferedField } from '$lib/server/sources';
  import { page } from '$app/state';
  import { call } from '../frame/client';
  import { narrowTo, queried } from '../frame/narrowing';
  import { attempt } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import { FIELD_NAMES, valueName } from './naming';
  import TagName from './TagName.svelte';

  /** What sources can be narrowed by, with how many there are of each value; choosing one writes it into the query. */
  let {
    of,
  }: {
    /** What is listed: when it changes, the counts are asked for anew. */
    of: unknown;
  } = $props();

  /** How many values of a field are seen at first. */
  const FIRST = 6;
  let facets = $state.raw<{ field: OfferedField; values: FacetValue[] }[]>();
  let opened = $state<string[]>([]);
  const query = $derived(queried());

  $effect(() => {
    void of;
    const { search } = page.url;
    let late = false;
    void attempt(() => call<NonNullable<typeof facets>>('GET', `/api/facets${search}`)).then((answer) => {
      if (answer && !late) facets = answer;
    });
    return () => (late = true);
  });

  const chosen = (field: OfferedField) => valuesOf(query, field).map((value) => value.toLowerCase());
  /** Those chosen first, also where nothing has them any more. */
  const shown = (field: OfferedField, values: FacetValue[]) => {
    const asked = valuesOf(query, field).filter(
      (value) => !values.some((v) => v.value.toLowerCase() === value.toLowerCase()),
    );
    const all = [...asked.map((value) => ({ value, n: 0 })), ...values];
    return opened.includes(field)
      ? all
      : all.filter((v, i) => i < FIRST || chosen(field).includes(v.value.toLowerCase()));
  };

  /** The groups of the tags that are there, each with its tags. */
  const groupsOf = (values: FacetValue[]): [group: string, tags: string[]][] => {
    const looks = page.data.tagLooks as Record<string, TagLook>;
    const groups: Record<string, string[]> = {};
    for (const { value } of values) {
      const group = looks[value]?.group;
      if (group) (groups[group] ??= []).push(value);
    }
    return Object.entries(groups).sort(([a], [b]) => a.localeCompare(b));
  };
  const has = (tags: string[]) => tags.every((tag) => chosen('tag').includes(tag.toLowerCase()));
  /** Asks for any tag of a group beside those asked for; for none of them, where it did. */
  function toggleGroup(tags: string[]) {
    const others = valuesOf(query, 'tag').filter(
      (one) => !tags.some((tag) => tag.toLowerCase() === one.toLowerCase()),
    );
    narrowTo(withField(query, 'tag', has(tags) ? others : [...others, ...tags]));
  }
</script>

<div class="facets" role="group" aria-label="Narrow by">
  {#if !facets}<p class="small-label">Counting…</p>{/if}
  {#each facets ?? [] as { field, values } (field)}
    {#if values.length || chosen(field).length}
      <section aria-label={FIELD_NAMES[field]}>
        <h3>{FIELD_NAMES[field]}</h3>
        {#if field === 'tag'}
          {#each groupsOf(values) as [group, tags] (group)}
            <Button
              look="chip"
              class="mr-1 mb-1"
              aria-pressed={has(tags)}
              title="Any of {tags.join(', ')}"
              onclick={() => toggleGroup(tags)}>Any of {group}</Button
            >
          {/each}
        {/if}
        <ul>
          {#each shown(field, values) as { value, n } (value)}
            <li>
              <Button
                look="bare"
                class="value"
                aria-pressed={chosen(field).includes(value.toLowerCase())}
                onclick={() => narrowTo(toggled(query, field, value))}
                ><span class="name"
                  >{#if field === 'tag'}<TagName tag={value} />{:else}{valueName(field, value)}{/if}</span
                >
                <span class="n">{n.toLocaleString('en')}</span></Button
              >
            </li>
          {/each}
        </ul>
        {#if values.length > FIRST}
          <Button
            look="link"
            class="text-xs"
            aria-expanded={opened.includes(field)}
            onclick={() =>
              (opened = opened.includes(field) ? opened.filter((f) => f !== field) : [...opened, field])}
            >{opened.includes(field) ? 'Fewer' : `${values.length - FIRST} more`}<span class="sr-only">
              of {FIELD_NAMES[field]}</span
            ></Button
          >
        {/if}
      </section>
    {/if}
  {:else}
    {#if facets}<p class="small-label">There is nothing to narrow by.</p>{/if}
  {/each}
</div>

<style>
  .facets {
    flex: none;
    max-height: 44vh;
    padding: 12px 26px 14px;
    overflow-y: auto;
    border-bottom: 1px solid var(--rule);
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
    gap: 14px 26px;
  }
  h3 {
    margin-bottom: 2px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  li :global(.value) {
    display: flex;
    gap: 8px;
    align-items: baseline;
    width: 100%;
    min-height: 24px;
    padding: 1px 7px;
    border-left: 3px solid transparent;
    border-radius: 4px;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }
  li :global(.value:hover) {
    background: var(--row-chosen);
  }
  li :global(.value[aria-pressed='true']) {
    border-left-color: var(--thread);
    background: var(--thread-soft);
    font-weight: 600;
  }
  .name {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .n {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 400;
    font-variant-numeric: tabular-nums;
  }
  @media (max-width: 760px) {
    .facets {
      max-height: 30vh;
      padding-inline: 12px;
    }
  }
</style>
