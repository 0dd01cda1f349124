<script lang="ts">
  import { Badge } from '../kit';
  import { page } from '$app/state';
  import { filtersAsQuery } from '$lib/core/query';
  import type { SavedQuery } from '$lib/server/queries';

  interface Props {
    saved: SavedQuery[];
    /** How many sources each finds now. */
    counts: Promise<Record<string, number> | undefined>;
  }
  /** The queries that are kept, each with what it finds now. */
  let { saved, counts }: Props = $props();

  let found = $state.raw<Record<string, number>>({});
  $effect(() => {
    const asked = counts;
    void asked.then((now) => {
      if (asked === counts && now) found = now;
    });
  });
  const now = $derived(
    page.url.pathname === '/sources' ? filtersAsQuery(Object.fromEntries(page.url.searchParams)) : '',
  );
</script>

{#if saved.length}
  <ul class="saved" aria-label="Kept queries">
    {#each saved as { id, name, query } (id)}
      <li>
        <a
          href="/sources?q={encodeURIComponent(query)}"
          aria-current={now === query ? 'page' : undefined}
          data-tip={query}
        >
          <span class="name">{name}</span>
          {#if found[id] !== undefined}<Badge>{found[id].toLocaleString('en')}</Badge>{/if}
        </a>
      </li>
    {/each}
  </ul>
{/if}

<style>
  .saved {
    margin-top: 10px;
    padding-top: 8px;
    border-top: 1px solid var(--rule);
  }
  a {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 30px;
    padding: 3px 16px 3px 18px;
    color: var(--ink-2);
    font-size: 13px;
    line-height: 1.25;
  }
  a:hover {
    color: var(--ink);
  }
  [aria-current] {
    color: var(--ink);
    font-weight: 650;
  }
  .name {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  @media (max-width: 760px) {
    .saved {
      display: flex;
      margin: 0;
      padding: 0;
      border: 0;
    }
  }
</style>
