<script lang="ts">
  import { call } from '$lib/ui/frame/client';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, Input, PageHead } from '$lib/ui/kit';

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
  /** A tag there is that is called as what was typed. */
  const joins = $derived(
    data.tags.find(({ tag }) => tag !== renaming && tag.toLowerCase() === typed.trim().toLowerCase()),
  );

  function begin(tag: string) {
    [renaming, typed] = [tag, tag];
  }

  async function change(said: { act: 'rename'; tag: string; to: string } | { act: 'take off'; tag: string }) {
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
    else void change({ act: 'rename', tag, to });
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
  <ul class="tags">
    {#each shown as { tag, sources, passages } (tag)}
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
          <span class="name">{tag}</span>
          <span class="has">
            {#if sources}<a class="link" href="/sources?tag={encodeURIComponent(tag)}"
                >{many(sources, 'source')}</a
              >{/if}
            {#if passages}<a class="link" href="/passages?tag={encodeURIComponent(tag)}"
                >{many(passages, 'passage')}</a
              >{/if}
          </span>
          <Button needs="edit" small onclick={() => begin(tag)} aria-label="Rename {tag}">Rename</Button>
          <Button
            needs="edit"
            small
            look="quiet"
            disabled={busy}
            aria-label="Take {tag} off"
            onclick={() => change({ act: 'take off', tag })}>Take off</Button
          >
        {/if}
      </li>
    {:else}
      <li>No tag has “{words.trim()}” in its name.</li>
    {/each}
  </ul>
{/if}

<style>
  .tags {
    max-width: 860px;
    padding: 10px 26px 60px;
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
