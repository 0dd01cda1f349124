<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import { invalidateAll } from '$app/navigation';
  import { LOCALES, STYLES } from '$lib/core/citing';
  import type { Project } from '$lib/server/repositories/projects';
  import { call } from './client';
  import { attempt } from './toasts.svelte';

  let {
    projects,
    projectId,
    library,
  }: { projects: Project[]; projectId: string | undefined; library: string } = $props();
  let making = $state(false);
  let draft = $state({ name: '', style: 'apa', locale: 'en-US' });

  async function choose(event: Event & { currentTarget: HTMLSelectElement }) {
    const { value } = event.currentTarget;
    if (value === 'new') {
      event.currentTarget.value = projectId ?? '';
      making = true;
      return;
    }
    await attempt(() => call('POST', '/api/scope', { projectId: value || null }));
    await invalidateAll();
  }

  async function make(event: Event) {
    event.preventDefault();
    const made = await attempt(() => call('POST', '/api/projects', draft));
    if (!made) return;
    making = false;
    draft = { name: '', style: 'apa', locale: 'en-US' };
    await invalidateAll();
  }
</script>

<select class="projects" aria-label="Project" value={projectId ?? ''} onchange={choose}>
  <option value="">{library}, everything</option>
  {#each projects as project (project.id)}<option value={project.id}>{project.name}</option>{/each}
  <option value="new">New project…</option>
</select>

<Modal bind:open={making} title="New project" size="sm" class="text-ink">
  <form onsubmit={make} class="grid gap-3">
    <label
      ><span class="small-label">Name</span><input class="field" bind:value={draft.name} required /></label
    >
    <label>
      <span class="small-label">Citing style</span>
      <select class="field" bind:value={draft.style}>
        {#each STYLES as style (style.id)}<option value={style.id}>{style.label}</option>{/each}
      </select>
    </label>
    <label>
      <span class="small-label">Language</span>
      <select class="field" bind:value={draft.locale}>
        {#each LOCALES as locale (locale.id)}<option value={locale.id}>{locale.label}</option>{/each}
      </select>
    </label>
    <div><button class="btn main">Make the project</button></div>
  </form>
</Modal>

<style>
  .projects {
    width: 100%;
    max-width: 220px;
    height: 30px;
    padding: 0 28px 0 10px;
    overflow: hidden;
    border: 1px solid #2c5466;
    border-radius: 6px;
    background-color: #1a4253;
    color: #fff;
    font-size: 13.5px;
    font-weight: 600;
    line-height: 1;
    text-overflow: ellipsis;
  }
  .projects option {
    background: var(--page);
    color: var(--ink);
  }
</style>
