<script lang="ts">
  import { SvelteSet } from 'svelte/reactivity';
  import { offer } from '$lib/ui/frame/actions.svelte';
  import ChooseProject from '$lib/ui/frame/ChooseProject.svelte';
  import { narrow, narrowedBy } from '$lib/ui/frame/narrowing';
  import { allows, Button, PageHead } from '$lib/ui/kit';
  import Glance from '$lib/ui/outline/Glance.svelte';
  import Outline from '$lib/ui/outline/Outline.svelte';
  import OutlineOut from '$lib/ui/outline/OutlineOut.svelte';
  import Shelf from '$lib/ui/outline/Shelf.svelte';

  let { data } = $props();
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const own = $derived(data.items.filter((i) => i.kind === 'sentence' || i.kind === 'question').length);
  const ticked = new SvelteSet<string>();
  // Passages and sources are not ticked together; what was placed is not ticked any more.
  $effect(() => {
    const there = new Set([...data.passages, ...data.sources].map(({ id }) => id));
    for (const id of ticked) if (!there.has(id)) ticked.delete(id);
  });
  let outline: Outline | undefined = $state();
  let here = $state<string>();
  const section = $derived(data.sections.find((s) => s.id === here));
  const where = $derived(section?.name);
  /** The shelf is for who puts something from it into the outline. */
  const edits = $derived(allows('edit'));
  const glance = $derived(!edits || narrowedBy('beside') === 'glance');
  async function put(ids: string[]) {
    const order = [...data.passages, ...data.sources].map(({ id }) => id).filter((id) => ids.includes(id));
    const made = await outline?.put(data.shelf === 'sources' ? 'source' : 'passage', order);
    if (made) ticked.clear();
  }
  offer(() => ({
    'outline put': ticked.size && where && edits ? () => put([...ticked]) : undefined,
    'outline shelf': project
      ? () => document.querySelector<HTMLElement>('.shelf input[type="search"]')?.focus()
      : undefined,
  }));
</script>

<svelte:head><title>Outline · Retexa</title></svelte:head>

<PageHead>
  <h1>Outline</h1>
  {#if project}
    <span class="sub">
      {data.sections.length.toLocaleString('en')}
      {data.sections.length === 1 ? 'section' : 'sections'} ·
      {(data.items.length - own).toLocaleString('en')} from the works · {own.toLocaleString('en')} of your own
    </span>
    <span class="flex-1"></span>
    {#if edits}
      <Button look="chip" aria-pressed={!glance} onclick={() => narrow({ beside: undefined })}>Shelf</Button>
      <Button look="chip" aria-pressed={glance} onclick={() => narrow({ beside: 'glance' })}
        >At a glance</Button
      >
    {/if}
    <OutlineOut projectId={project.id} disabled={data.sections.length === 0} />
  {/if}
</PageHead>

{#if !project}
  <ChooseProject
    projects={data.projects}
    heading="An outline is of one project"
    what="Choose the paper, chapter or thesis you want to arrange."
  />
{:else}
  <div class="beside">
    <div class="page">
      {#key project.id}
        <Outline
          bind:this={outline}
          bind:here
          goTo={narrowedBy('at')}
          projectId={project.id}
          sections={data.sections}
          items={data.items}
        />
      {/key}
      {#if data.sections.length === 0}
        <p class="hint">
          {#if !edits}Nothing stands in the outline of this project yet.{:else}
            Sections are the headings of what you will write. Make the first one; then put passages and
            sources under it from the shelf, and say in sentences of your own what they show.{/if}
        </p>
      {/if}
    </div>
    {#if glance}
      <Glance sections={data.sections} items={data.items} {section} />
    {:else}
      <Shelf
        of={data.shelf}
        passages={data.passages}
        sources={data.sources}
        total={data.onShelf}
        tags={data.tags}
        sections={data.sections}
        onlyOf={data.onlyOf}
        {ticked}
        {where}
        placed={data.items.some((i) => i.kind === (data.shelf === 'sources' ? 'source' : 'passage'))}
        onput={put}
      />
    {/if}
  </div>
{/if}

<style>
  .beside {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .page {
    position: relative;
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .hint {
    position: absolute;
    inset: 120px 26px auto;
    max-width: 520px;
    color: var(--ink-2);
  }
  @media (max-width: 900px) {
    .beside {
      flex-direction: column;
    }
  }
</style>
