<script lang="ts">
  import { asking } from '$lib/core/query';
  import { PLAIN_LOOK, type TagLook } from '$lib/core/source';
  import { Empty, PageHead, Search } from '$lib/ui/kit';
  import TagChanges from '$lib/ui/source/TagChanges.svelte';
  import TagName from '$lib/ui/source/TagName.svelte';

  let { data } = $props();

  let words = $state('');

  const many = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;
  const shown = $derived(
    data.tags.filter(({ tag }) => tag.toLowerCase().includes(words.trim().toLowerCase())),
  );
  const lookOf = (tag: string): TagLook => data.tagLooks[tag] ?? PLAIN_LOOK;
  const groups = $derived(
    [...new Set(data.tags.flatMap(({ tag }) => lookOf(tag).group ?? []))].sort((a, b) => a.localeCompare(b)),
  );
  /** The tags by group; those in none last. */
  const grouped = $derived(
    [...groups, null]
      .map((group) => ({ group, tags: shown.filter(({ tag }) => lookOf(tag).group === group) }))
      .filter(({ tags }) => tags.length),
  );
  const anyOf = (tags: { tag: string }[]) => encodeURIComponent(asking(['tag', tags.map(({ tag }) => tag)]));
</script>

<svelte:head><title>Tags · Retexa</title></svelte:head>

<PageHead>
  <h1>Tags</h1>
  <span class="sub">{data.tags.length.toLocaleString('en')} in the library</span>
  <span class="flex-1"></span>
  {#if data.tags.length > 12}<Search
      look="chip"
      placeholder="Find a tag"
      aria-label="Find a tag"
      bind:value={words}
    />{/if}
</PageHead>

{#if data.tags.length === 0}
  <Empty>
    <h2>No tags yet</h2>
    <p>
      Tags are given on a <a class="link" href="/sources">source</a>, to several selected ones, and to
      passages while reading.
    </p>
  </Empty>
{:else}
  <div class="tags">
    {#each grouped as { group, tags } (group)}
      {#if group || groups.length}
        <h2>
          {group ?? 'In no group'}
          {#if group}<a class="link" href="/sources?q={anyOf(tags)}">Sources of any</a>{/if}
        </h2>
      {/if}
      <ul>
        {#each tags as { tag, sources, passages } (tag)}
          <li>
            <TagChanges {tag} tags={data.tags}>
              <a class="name" href="/tags/{encodeURIComponent(tag)}"><TagName {tag} /></a>
              <span class="has">
                {#if sources}<a class="link" href="/sources?tag={encodeURIComponent(tag)}"
                    >{many(sources, 'source')}</a
                  >{/if}
                {#if passages}<a class="link" href="/passages?tag={encodeURIComponent(tag)}"
                    >{many(passages, 'passage')}</a
                  >{/if}
              </span>
            </TagChanges>
          </li>
        {/each}
      </ul>
    {:else}
      <p>No tag has “{words.trim()}” in its name.</p>
    {/each}
  </div>
{/if}

<style>
  .tags {
    max-width: 860px;
    padding: 10px 26px 60px;
  }
  h2 {
    display: flex;
    gap: 14px;
    align-items: baseline;
    margin-top: 18px;
    font-size: 15px;
    font-weight: 650;
  }
  h2 .link {
    font-size: 13px;
    font-weight: 400;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: center;
    min-height: 46px;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
  }
  .name {
    flex: 1;
    min-width: 140px;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  .name:hover {
    text-decoration: underline;
  }
  .has {
    display: flex;
    gap: 14px;
    min-width: 190px;
    font-size: 13.5px;
  }
</style>
