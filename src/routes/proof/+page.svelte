<script lang="ts">
  import { narrowedHref } from '$lib/ui/frame/narrowing';
  import { Button, Empty, PageHead } from '$lib/ui/kit';
  import FoundSources from '$lib/ui/proof/FoundSources.svelte';
  import ProofGroups from '$lib/ui/proof/ProofGroups.svelte';

  let { data } = $props();
  const project = $derived(data.projects.find((p) => p.id === data.projectId)?.name);
  let around = $state.raw<Awaited<typeof data.around>>([]);
  let through = $state<'going' | 'done' | 'failed'>('going');
  $effect(() => {
    const asked = data.around;
    void asked.then((found) => {
      if (asked !== data.around) return;
      [around, through] = [found ?? [], found ? 'done' : 'failed'];
    });
  });
  const all = $derived([...data.groups, ...(around ?? [])]);
  const asked = $derived(all.filter((g) => !g.aside));
  const current = $derived(all.find((g) => g.check === data.check));
  const more = $derived(narrowedHref({ check: data.check, show: String(data.show + data.more) }));
</script>

<svelte:head><title>Proof · Retexa</title></svelte:head>

<PageHead>
  <h1>Proof</h1>
  <span class="sub">
    {asked.reduce((n, g) => n + g.n, 0).toLocaleString('en')} findings in {data.narrowed
      ? 'the sources you chose'
      : (project ?? 'the library')}, as it prints in <a class="link" href="/references">{data.look.name}</a>
  </span>
  {#if data.narrowed}<Button small look="quiet" href="/proof">Proof all</Button>{/if}
</PageHead>

<div class="proof">
  <nav class="groups" aria-label="What was found">
    <ProofGroups
      name="Prints wrong"
      groups={data.groups.filter((g) => g.pencil === 'red' && !g.aside)}
      check={data.check}
    />
    <ProofGroups
      name="To ask about"
      groups={data.groups.filter((g) => g.pencil !== 'red' && !g.aside)}
      check={data.check}
    />
    <ProofGroups
      name="In this style and library"
      groups={(around ?? []).filter((g) => !g.aside)}
      check={data.check}
    />
    {#if through === 'going'}<p class="small-label say" role="status">
        Going through the records for this style …
      </p>
    {:else if through === 'failed'}<p class="small-label say" role="status">
        The records could not be gone through for this style. Load the page again.
      </p>{/if}
    <ProofGroups name="Not asked in this project" groups={all.filter((g) => g.aside)} check={data.check} />
    <p class="small-label say"><a class="link" href="/duplicates/spellings">Names in several spellings</a></p>
  </nav>
  <div class="opened">
    {#if data.opened && data.opened.sources.length}
      {#key data.opened.check}
        <FoundSources opened={data.opened} {project} aside={current?.aside ?? false} {more} />
      {/key}
    {:else if asked.length || through === 'going'}
      <Empty>
        <h2>{data.opened ? `${data.opened.name}: nothing more` : 'Nothing in the records themselves'}</h2>
        <p>Choose another line at the left.</p>
      </Empty>
    {:else}
      <Empty>
        <h2>Nothing found</h2>
        <p>
          All records print as they should. No software is always right: read the <a
            class="link"
            href="/references">reference list</a
          > once more.
        </p>
      </Empty>
    {/if}
  </div>
</div>

<style>
  .proof {
    display: grid;
    flex: 1;
    grid-template-columns: 290px minmax(0, 1fr);
    min-height: 0;
  }
  .groups {
    padding: 14px 0 30px;
    border-right: 1px solid var(--margin-rule);
    background: var(--side);
    overflow-y: auto;
  }
  .opened {
    min-width: 0;
    overflow-y: auto;
  }
  .say {
    padding: 0 14px 12px;
  }
  @media (max-width: 760px) {
    .proof {
      display: block;
      overflow-y: auto;
    }
    .groups,
    .opened {
      overflow: visible;
    }
  }
</style>
