<script lang="ts">
  import { page } from '$app/state';
  import { asking } from '$lib/core/query';
  import { countOf } from '$lib/ui/frame/counting';
  import FindField from '$lib/ui/frame/FindField.svelte';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import RenameName from '$lib/ui/people/RenameName.svelte';
  import SayOrcid from '$lib/ui/people/SayOrcid.svelte';

  let { data } = $props();

  const containers = $derived(data.kind === 'container');
  const to = (name: string) => `/sources?q=${encodeURIComponent(asking([data.kind, [name]]))}`;
  /** The name that is being called otherwise, or whose ORCID is being said; and what it is offered to be called. */
  let open = $state<{ name: string; what: 'name' | 'orcid'; to?: string }>();
  const close = () => (open = undefined);
</script>

<svelte:head><title>People · Retexa</title></svelte:head>

<PageHead>
  <h1>People</h1>
  <span class="sub">
    {data.names.total.toLocaleString('en')}
    {containers ? 'titles that sources appeared in' : 'people and institutions, of any role'}
  </span>
  <span class="flex-1"></span>
  <Button look="chip" href="/people" aria-current={containers ? undefined : 'page'} data-sveltekit-keepfocus
    >Who made them</Button
  >
  <Button
    look="chip"
    href="/people?of=container"
    aria-current={containers ? 'page' : undefined}
    data-sveltekit-keepfocus>Where they appeared</Button
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
        {#if open?.name === name && open.what === 'name'}
          <RenameName kind={data.kind} {name} {n} to={open.to} onclose={close} />
        {:else}
          <span class="name">
            <a class="serif" href={to(name)}>{name}</a>
            {#if orcid}<a
                class="link inline-block py-[3px]"
                href="https://orcid.org/{orcid}"
                target="_blank"
                rel="noopener noreferrer">ORCID {orcid}</a
              >{/if}
            {#each also ?? [] as other (other)}
              <span class="also"
                >the same as {other}
                <Button needs="edit" small onclick={() => (open = { name, what: 'name', to: other })}
                  >Write it so here too</Button
                ></span
              >
            {/each}
          </span>
          <span class="small-label">{countOf(n, 'source')}</span>
          <Button
            needs="edit"
            small
            look="quiet"
            aria-label="Rename {name}"
            onclick={() => (open = { name, what: 'name' })}>Rename</Button
          >
          {#if !containers}<Button
              needs="edit"
              small
              look="quiet"
              aria-label="ORCID of {name}"
              aria-expanded={open?.name === name}
              onclick={() => (open = open?.name === name ? undefined : { name, what: 'orcid' })}>ORCID</Button
            >{/if}
          {#if open?.name === name}<SayOrcid {name} {orcid} onclose={close} />{/if}
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
  .more {
    padding: 12px 26px 40px;
  }
</style>
