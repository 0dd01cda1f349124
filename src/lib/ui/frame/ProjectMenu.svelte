<script lang="ts">
  import { Button, Dialog, Input, Select } from '../kit';
  import { invalidateAll } from '$app/navigation';
  import { styleLabel } from '$lib/core/citing';
  import type { Project } from '$lib/server/projects';
  import { call } from './client';
  import StylePicker from '../lists/StylePicker.svelte';
  import { attempt, done, doneWithUndo } from './toasts.svelte';

  let {
    projects,
    projectId,
    library,
    styleName,
    languages,
  }: {
    projects: Project[];
    projectId: string | undefined;
    library: string;
    styleName: string;
    languages: { id: string; label: string }[];
  } = $props();

  type Draft = Pick<Project, 'name' | 'style' | 'locale'> & {
    id?: string;
    styleTitle: string;
    putAway?: string | null;
  };
  const fresh = (): Draft => ({ name: '', style: 'apa', styleTitle: styleLabel('apa'), locale: 'en-US' });
  let open = $state(false);
  let draft = $state(fresh());
  const project = $derived(projects.find((p) => p.id === projectId));

  async function choose(event: Event & { currentTarget: HTMLSelectElement }) {
    const { value } = event.currentTarget;
    if (value === 'new' || value === 'change') {
      event.currentTarget.value = projectId ?? '';
      draft = value === 'change' && project ? { ...project, styleTitle: styleName } : fresh();
      open = true;
      return;
    }
    await attempt(() => call('POST', '/api/scope', { projectId: value || null }));
    await invalidateAll();
  }

  async function setAside(how: { putAway: boolean } | { binned: boolean }) {
    const { id, name } = draft;
    const set = (to: typeof how) => call('POST', `/api/projects/${id}`, to);
    if (!(await attempt(() => set(how)))) return;
    open = false;
    const [key, aside] = Object.entries(how)[0] as ['putAway' | 'binned', boolean];
    const back = { [key]: !aside } as typeof how;
    const said = key === 'binned' ? 'is in the bin' : aside ? 'is put away' : 'is taken up again';
    doneWithUndo(`${name} ${said}.`, async () => {
      await set(back);
      if (key === 'binned') await call('POST', '/api/scope', { projectId: id });
      await invalidateAll();
    });
    await invalidateAll();
  }

  async function save(event: Event) {
    event.preventDefault();
    const { id, name, style, locale } = draft;
    const kept = await attempt(async () => {
      if (id) await call('PATCH', `/api/projects/${id}`, { name, style, locale });
      else await call('POST', '/api/projects', { name, style, locale });
      return true;
    });
    if (!kept) return;
    open = false;
    if (id) done(`${name} is changed.`);
    await invalidateAll();
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
  </Select>
</div>

<Dialog bind:open title={draft.id ? 'Change the project' : 'New project'} size="sm">
  <form onsubmit={save} class="grid gap-3">
    <label><span class="small-label">Name</span><Input bind:value={draft.name} required /></label>
    <div>
      <span class="small-label">Citing style</span>
      <StylePicker
        inline
        id={draft.style}
        title={draft.styleTitle}
        locale={draft.locale}
        onchoose={(style, title) => (draft = { ...draft, style, styleTitle: title })}
      />
    </div>
    <label>
      <span class="small-label">Language</span>
      <Select bind:value={draft.locale}>
        {#each languages as language (language.id)}<option value={language.id}>{language.label}</option
          >{/each}
      </Select>
    </label>
    <div class="flex items-center gap-2">
      <Button look="main" type="submit">{draft.id ? 'Keep the changes' : 'Make the project'}</Button>
      {#if draft.id}
        <span class="flex-1"></span>
        <Button onclick={() => setAside({ putAway: !draft.putAway })}
          >{draft.putAway ? 'Take it up again' : 'Put it away'}</Button
        >
        <Button onclick={() => setAside({ binned: true })}>Put it in the bin</Button>
      {/if}
    </div>
    {#if draft.id}<p class="small-label">
        Put away, a project stays as it is and stands last in the menu. In the bin, its sources stay in the
        library.
      </p>{/if}
  </form>
</Dialog>

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
