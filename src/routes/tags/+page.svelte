<script lang="ts">
  import { call } from '$lib/ui/frame/client';
  import { PLAIN_LOOK, type TagLook } from '$lib/core/source';
  import { attempt, change, done } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, Input, PageHead } from '$lib/ui/kit';
  import TagLookForm from '$lib/ui/source/TagLookForm.svelte';
  import TagName from '$lib/ui/source/TagName.svelte';

  let { data } = $props();

  /** The tag that is being called otherwise, and what was typed. */
  let renaming = $state<string | undefined>();
  let typed = $state('');
  let words = $state('');
  let busy = $state(false);

  const many = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;
  const shown = $derived(
    data.tags.filter(({ tag }) => tag.toLowerCase().includes(words.trim().toLowerCase())),
  );
  /** The tag whose look is being chosen. */
  let dressing = $state<string | undefined>();
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
  async function dress(tag: string, look: TagLook) {
    const kept = await change('/api/tags/looks', { looks: { [tag]: look } }, `How ${tag} looks is kept.`);
    if (kept) dressing = undefined;
  }
  /** The query for what has any of some tags. */
  const anyOf = (tags: { tag: string }[]) =>
    encodeURIComponent(`tag:${tags.map(({ tag }) => (/[\s,"]/.test(tag) ? `"${tag}"` : tag)).join(',')}`);
  /** A tag there is that is called as what was typed. */
  const joins = $derived(
    data.tags.find(({ tag }) => tag !== renaming && tag.toLowerCase() === typed.trim().toLowerCase()),
  );

  function begin(tag: string) {
    [renaming, typed] = [tag, tag];
  }

  async function alter(said: { act: 'rename'; tag: string; to: string } | { act: 'take off'; tag: string }) {
    if (busy) return;
    busy = true;
    const made = await attempt(() =>
      call<{ revisions: string[]; sources: number; passages: number }>('POST', '/api/tags', said),
    );
    busy = false;
    if (!made) return;
    renaming = undefined;
    const where = [
      ...(made.sources ? [many(made.sources, 'source')] : []),
      ...(made.passages ? [many(made.passages, 'passage')] : []),
    ].join(' and ');
    done(
      said.act === 'rename'
        ? `${said.tag} is called ${said.to} now, in ${where}.`
        : `${said.tag} is taken off ${where}.`,
      made.revisions,
    );
  }
  function rename(tag: string) {
    const to = joins?.tag ?? typed.trim();
    if (!to || to === tag) renaming = undefined;
    else void alter({ act: 'rename', tag, to });
  }
</script>

<svelte:head><title>Tags · Retexa</title></svelte:head>

<PageHead>
  <h1>Tags</h1>
  <span class="sub">{data.tags.length.toLocaleString('en')} in the library</span>
  <span class="flex-1"></span>
  {#if data.tags.length > 12}<Input
      look="chip"
      type="search"
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
            {#if renaming === tag}
              <form
                onsubmit={(e) => {
                  e.preventDefault();
                  rename(tag);
                }}
              >
                <Input
                  autofocus
                  class="w-[260px]!"
                  aria-label="New name of {tag}"
                  bind:value={typed}
                  onkeydown={(e: KeyboardEvent) => {
                    if (e.key === 'Escape') renaming = undefined;
                  }}
                />
                <Button look="main" type="submit" disabled={busy || !typed.trim()}
                  >{joins ? `Join with ${joins.tag}` : 'Rename'}</Button
                >
                <Button look="quiet" onclick={() => (renaming = undefined)}>Leave it</Button>
                {#if joins}<span class="small-label"
                    >{joins.tag} is there already, on {many(joins.sources, 'source')} and {many(
                      joins.passages,
                      'passage',
                    )}.</span
                  >{/if}
              </form>
            {:else}
              <span class="name"><TagName {tag} /></span>
              <span class="has">
                {#if sources}<a class="link" href="/sources?tag={encodeURIComponent(tag)}"
                    >{many(sources, 'source')}</a
                  >{/if}
                {#if passages}<a class="link" href="/passages?tag={encodeURIComponent(tag)}"
                    >{many(passages, 'passage')}</a
                  >{/if}
              </span>
              <Button
                needs="edit"
                small
                aria-label="How {tag} looks"
                aria-expanded={dressing === tag}
                onclick={() => (dressing = dressing === tag ? undefined : tag)}>Colour and group</Button
              >
              <Button needs="edit" small onclick={() => begin(tag)} aria-label="Rename {tag}">Rename</Button>
              <Button
                needs="edit"
                small
                look="quiet"
                disabled={busy}
                aria-label="Take {tag} off"
                onclick={() => alter({ act: 'take off', tag })}>Take off</Button
              >
              {#if dressing === tag}<TagLookForm
                  {tag}
                  look={lookOf(tag)}
                  {groups}
                  onsay={(look) => dress(tag, look)}
                  onclose={() => (dressing = undefined)}
                />{/if}
            {/if}
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
  li,
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: center;
  }
  li {
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
  .has {
    display: flex;
    gap: 14px;
    min-width: 190px;
    font-size: 13.5px;
  }
</style>
