<script lang="ts">
  import { browser } from '$app/environment';
  import { call } from '$lib/ui/frame/client';
  import ChooseProject from '$lib/ui/frame/ChooseProject.svelte';
  import { narrow, narrowedBy } from '$lib/ui/frame/narrowing';
  import { attempt } from '$lib/ui/frame/toasts.svelte';
  import { allows, Button, Empty, PageHead } from '$lib/ui/kit';
  import Draft from '$lib/ui/draft/Draft.svelte';
  import DraftOut from '$lib/ui/draft/DraftOut.svelte';
  import ManuscriptDialog from '$lib/ui/draft/ManuscriptDialog.svelte';

  let { data } = $props();
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const beside = $derived(narrowedBy('beside') || 'material');
  const BESIDE = [
    ['material', 'Material'],
    ['contents', 'Contents'],
    ['checks', 'Checks'],
    ['versions', 'Versions'],
  ] as const;
  let text: Draft | undefined = $state();
  let elsewhere = $state(false);
  let made = $state<{ id: string; projectId: string; listed: string[]; template: string }>();
  const draft = $derived(data.draft ?? (made?.projectId === project?.id ? made : undefined));
  // A project that is written about for the first time gets its draft.
  $effect(() => {
    if (!project || draft || !allows('edit')) return;
    const { id } = project;
    void attempt(async () => {
      const begun = await call<{ id: string; projectId: string; listed: string[] }>(
        'POST',
        `/api/projects/${id}/draft`,
        {},
      );
      made = { ...begun, template: '' };
    });
  });
</script>

<svelte:head><title>Draft · Retexa</title></svelte:head>

<PageHead>
  <h1>Draft</h1>
  {#if project}
    <span class="sub">{project.name}</span>
    <span class="flex-1"></span>
    {#each BESIDE as [id, name] (id)}
      <Button
        look="chip"
        aria-pressed={beside === id}
        onclick={() => narrow({ beside: id === 'material' ? undefined : id })}>{name}</Button
      >
    {/each}
    <Button onclick={() => (elsewhere = true)}>Written elsewhere…</Button>
    {#if draft}<DraftOut
        draftId={draft.id}
        template={draft.template}
        flush={async () => text?.flush()}
      />{/if}
  {/if}
</PageHead>

<ManuscriptDialog bind:open={elsewhere} styleName={data.look.name} />

{#if !project}
  <ChooseProject
    projects={data.projects}
    heading="A draft is of one project"
    what="Choose the paper, chapter or thesis you want to write."
  />
{:else if !draft && !allows('edit')}
  <Empty>
    <h2>Nothing is written yet</h2>
    <p>When an editor of the library begins to write, the text is here to read.</p>
  </Empty>
{:else if draft && browser}
  <!-- The editor lives in the browser alone. -->
  {#key draft.id}
    <Draft
      bind:this={text}
      {draft}
      look={data.look}
      sections={data.sections}
      items={data.items}
      {beside}
      part={narrowedBy('part')}
    />
  {/key}
{/if}

<style>
</style>
