<script lang="ts">
  import { page } from '$app/state';
  import { asking } from '$lib/core/query';
  import { orcidText } from '$lib/core/source';
  import { call } from '$lib/ui/frame/client';
  import FindField from '$lib/ui/frame/FindField.svelte';
  import { attempt, change, done } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, Input, PageHead } from '$lib/ui/kit';

  let { data } = $props();

  const containers = $derived(data.kind === 'container');
  const many = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'source' : 'sources'}`;
  /** The name that is being called otherwise, what was typed, and the sources it stands in. */
  let renaming = $state<string | undefined>();
  let typed = $state('');
  let busy = $state(false);
  let named = $state.raw<{ id: string; label: string; title: string }[]>();

  const to = (name: string) => `/sources?q=${encodeURIComponent(asking([data.kind, [name]]))}`;
  async function begin(name: string) {
    [renaming, typed, named] = [name, name, undefined];
    const found = await attempt(() =>
      call<NonNullable<typeof named>>(
        'GET',
        `/api/people?kind=${data.kind}&name=${encodeURIComponent(name)}`,
      ),
    );
    if (renaming === name) named = found;
  }
  /** The name whose ORCID is being said, what was typed, and what is wrong with it. */
  let saying = $state<string | undefined>();
  let said = $state('');
  let wrong = $state('');
  function ask(name: string, orcid = '') {
    [saying, said, wrong] = [name, orcid, ''];
  }
  async function sayWho(name: string) {
    const orcid = orcidText(said) ?? null;
    if (said.trim() && !orcid)
      return void (wrong = 'This is no ORCID: sixteen digits in fours, the last one checks the others.');
    if (busy) return;
    busy = true;
    const words = orcid ? `${name} is ${orcid}.` : `The ORCID of ${name} is taken away.`;
    if (await change('/api/people/orcids', { name, orcid }, words)) saying = undefined;
    busy = false;
  }
  /** Opens renaming with another name that the same person has. */
  async function join(name: string, other: string) {
    await begin(name);
    typed = other;
  }
  async function rename(name: string) {
    const wanted = typed.trim();
    if (!wanted || wanted === name || busy) return void (renaming = undefined);
    busy = true;
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/people', { kind: data.kind, name, to: wanted }),
    );
    busy = false;
    if (!made) return;
    renaming = undefined;
    done(`${name} is called ${wanted} now, in ${many(made.revisions.length)}.`, made.revisions);
  }
</script>

<svelte:head><title>People · Retexa</title></svelte:head>

<PageHead>
  <h1>People</h1>
  <span class="sub">
    {data.names.total.toLocaleString('en')}
    {containers ? 'titles that sources appeared in' : 'people and institutions, of any role'}
  </span>
  <span class="flex-1"></span>
  <Button look="chip" href="/people" aria-current={containers ? undefined : 'page'}>Who made them</Button>
  <Button look="chip" href="/people?of=container" aria-current={containers ? 'page' : undefined}
    >Where they appeared</Button
  >
  <FindField what="names" />
  <Button small look="quiet" href="/duplicates/spellings{containers ? '?of=containers' : ''}"
    >Written in several ways</Button
  >
</PageHead>

{#if data.names.total === 0}
  <Empty>
    {#if data.words}
      <h2>Nobody fits</h2>
      <p>No name has these words. <a class="link" href={page.url.pathname}>Show all names</a></p>
    {:else}
      <h2>No names yet</h2>
      <p>They come with the sources: <a class="link" href="/sources">capture or import some</a>.</p>
    {/if}
  </Empty>
{:else}
  <ul class="names">
    {#each data.names.items as { name, n, orcid, also } (name)}
      <li>
        {#if renaming === name}
          <form
            onsubmit={(e) => {
              e.preventDefault();
              void rename(name);
            }}
          >
            <Input
              autofocus
              class="w-[340px]!"
              aria-label="New name of {name}"
              bind:value={typed}
              onkeydown={(e: KeyboardEvent) => {
                if (e.key === 'Escape') renaming = undefined;
              }}
            />
            <Button look="main" type="submit" disabled={busy || !typed.trim()}>Rename in {many(n)}</Button>
            <Button look="quiet" onclick={() => (renaming = undefined)}>Leave it</Button>
            <ul class="small-label">
              {#each named ?? [] as one (one.id)}<li>{one.label}. {one.title}</li>{/each}
              {#if named && named.length < n}<li>and {(n - named.length).toLocaleString('en')} more</li>{/if}
            </ul>
          </form>
        {:else}
          <span class="name">
            <a class="serif" href={to(name)}>{name}</a>
            {#if orcid}<a
                class="link"
                href="https://orcid.org/{orcid}"
                target="_blank"
                rel="noopener noreferrer">ORCID {orcid}</a
              >{/if}
            {#each also ?? [] as other (other)}
              <span class="also"
                >the same as {other}
                <Button needs="edit" small onclick={() => join(name, other)}>Write it so here too</Button
                ></span
              >
            {/each}
          </span>
          <span class="small-label">{many(n)}</span>
          <Button needs="edit" small look="quiet" aria-label="Rename {name}" onclick={() => begin(name)}
            >Rename</Button
          >
          {#if !containers}<Button
              needs="edit"
              small
              look="quiet"
              aria-label="ORCID of {name}"
              aria-expanded={saying === name}
              onclick={() => (saying === name ? (saying = undefined) : ask(name, orcid))}>ORCID</Button
            >{/if}
          {#if saying === name}
            <form
              onsubmit={(e) => {
                e.preventDefault();
                void sayWho(name);
              }}
            >
              <Input
                autofocus
                class="w-[240px]!"
                aria-label="ORCID of {name}"
                aria-invalid={wrong ? 'true' : undefined}
                aria-describedby={wrong ? 'orcid-wrong' : undefined}
                placeholder="0000-0000-0000-0000"
                bind:value={said}
                oninput={() => (wrong = '')}
                onkeydown={(e: KeyboardEvent) => {
                  if (e.key === 'Escape') saying = undefined;
                }}
              />
              <Button look="main" type="submit" disabled={busy}>Keep it</Button>
              <Button look="quiet" onclick={() => (saying = undefined)}>Leave it</Button>
              {#if wrong}<span id="orcid-wrong" class="pencil-red" role="alert">{wrong}</span>{/if}
            </form>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
  {#if data.names.total > data.names.items.length}
    <p class="small-label more">
      Those in most sources are shown; find the other {(
        data.names.total - data.names.items.length
      ).toLocaleString('en')} by their words.
    </p>
  {/if}
{/if}

<style>
  .names {
    max-width: 900px;
    padding: 8px 26px 0;
  }
  .names > li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    align-items: baseline;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  .name {
    display: flex;
    flex: 1;
    flex-wrap: wrap;
    gap: 2px 14px;
    align-items: baseline;
    min-width: 200px;
    overflow-wrap: anywhere;
  }
  .name .serif {
    font-size: 16px;
  }
  .name .serif:hover {
    text-decoration: underline;
  }
  .name .link,
  .also {
    font-size: 13px;
    color: var(--ink-2);
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    width: 100%;
  }
  form ul {
    width: 100%;
    max-height: 30vh;
    overflow-y: auto;
  }
  .more {
    padding: 12px 26px 40px;
  }
</style>
