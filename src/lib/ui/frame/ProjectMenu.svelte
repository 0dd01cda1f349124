<script lang="ts">
  import { Select } from '../kit';
  import { tick } from 'svelte';
  import { renew } from './live.svelte';
  import type { LibraryOf } from '$lib/server/libraries';
  import type { Project } from '$lib/server/projects';
  import { call } from './client';
  import ProjectDialog from './ProjectDialog.svelte';
  import { attempt } from './toasts.svelte';

  let {
    projects,
    projectId,
    library,
    others,
    styleName,
    languages,
  }: {
    projects: Project[];
    projectId: string | undefined;
    library: string;
    /** Other libraries one is in. */
    others: LibraryOf[];
    styleName: string;
    languages: { id: string; label: string }[];
  } = $props();

  let dialog = $state<'new' | 'change'>();
  const project = $derived(projects.find((p) => p.id === projectId));

  async function choose(event: Event & { currentTarget: HTMLSelectElement }) {
    const menu = event.currentTarget;
    const { value } = menu;
    if (value === 'new' || value === 'change') {
      dialog = value;
      await tick();
      // What was chosen is no project: the menu goes on naming the one there is.
      menu.value = projectId ?? '';
      return;
    }
    const other = others.find(({ id }) => id === value);
    if (other) {
      await attempt(() => call('POST', '/api/scope', { libraryId: other.id }));
      // Nothing of one library stays on the page of another.
      location.assign('/');
      return;
    }
    await attempt(() => call('POST', '/api/scope', { projectId: value || null }));
    await renew('*');
  }
</script>

<div class="menu">
  <Select look="bare" aria-label="Project" value={projectId ?? ''} onchange={choose}>
    <option value="">{library}, everything</option>
    {#each projects.filter((p) => !p.putAway) as project (project.id)}<option value={project.id}
        >{project.name}</option
      >{/each}
    {#if projects.some((p) => p.putAway)}
      <optgroup label="Put away">
        {#each projects.filter((p) => p.putAway) as project (project.id)}<option value={project.id}
            >{project.name}</option
          >{/each}
      </optgroup>
    {/if}
    {#if project}<option value="change">Change {project.name}…</option>{/if}
    <option value="new">New project…</option>
    {#if others.length}
      <optgroup label="Other libraries">
        {#each others as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </optgroup>
    {/if}
  </Select>
</div>

{#if dialog}
  <ProjectDialog
    project={dialog === 'change' ? project : undefined}
    {styleName}
    {languages}
    onclose={() => (dialog = undefined)}
  />
{/if}

<style>
  .menu :global(select) {
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
  .menu :global(option) {
    background: var(--page);
    color: var(--ink);
  }
</style>
