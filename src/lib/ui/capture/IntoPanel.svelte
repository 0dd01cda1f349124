<script lang="ts">
  import { Input, Select, Textarea } from '../kit';
  import { onMount } from 'svelte';
  import type { Section } from '$lib/server/projects';
  import { call } from '../frame/client';
  import { destinations, type Destinations, type Going } from './into.svelte';
  import TagsField from '../source/TagsField.svelte';
  import { attempt } from '../frame/toasts.svelte';

  interface Props {
    going: Going;
    /** The project chosen above, which captures go to when nothing else is said. */
    projectId?: string | undefined;
    /** Leaves out the choice of a preset, where one is chosen already. */
    withPreset?: boolean;
  }
  let { going = $bindable(), projectId, withPreset = true }: Props = $props();
  let offered = $state<Destinations>({ projects: [], sections: [], presets: [], tags: [] });
  let naming = $state(false);
  let sectionName = $state('');
  const project = $derived(going.projectId ?? projectId ?? '');
  const sections = $derived(offered.sections.filter((s) => s.projectId === project));
  const id = $props.id();

  onMount(async () => {
    offered = (await attempt(destinations)) ?? offered;
  });

  async function makeSection() {
    const name = sectionName.trim();
    naming = false;
    // Enter leaves the field, which is a change of it too: once is meant.
    sectionName = '';
    if (!name) return;
    const made = await attempt(() => call<Section>('POST', '/api/sections', { projectId: project, name }));
    if (!made) return;
    if (!offered.sections.some((s) => s.id === made.id)) offered.sections = [...offered.sections, made];
    going.sectionId = made.id;
  }
</script>

<div class="into">
  {#if withPreset && offered.presets.length}
    <label for="{id}-preset">Preset</label>
    <Select id="{id}-preset" bind:value={going.presetId}>
      <option value="">None</option>
      {#each offered.presets as preset (preset.id)}<option value={preset.id}>{preset.name}</option>{/each}
    </Select>
  {/if}
  <label for="{id}-project">Project</label>
  <Select
    id="{id}-project"
    value={project}
    onchange={(e) => {
      going.projectId = e.currentTarget.value;
      going.sectionId = '';
    }}
  >
    <option value="">The library only</option>
    {#each offered.projects as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
  </Select>
  {#if project}
    <label for="{id}-section">Section</label>
    {#if naming}
      <Input
        id="{id}-section"
        placeholder="Name of the new section"
        bind:value={sectionName}
        autofocus
        onchange={makeSection}
        onkeydown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault();
            void makeSection();
          } else if (e.key === 'Escape') {
            e.stopPropagation();
            naming = false;
          }
        }}
      />
    {:else}
      <Select
        id="{id}-section"
        value={going.sectionId}
        onchange={(e) => {
          if (e.currentTarget.value === 'new') naming = true;
          else going.sectionId = e.currentTarget.value;
        }}
      >
        <option value="">None yet</option>
        {#each sections as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
        <option value="new">New section…</option>
      </Select>
    {/if}
  {/if}
  <span class="label">Tags</span>
  <TagsField tags={going.tags} offered={offered.tags} onchange={(tags) => (going.tags = tags)} />
  <label for="{id}-note">Note</label>
  <Textarea id="{id}-note" rows="2" bind:value={going.note} placeholder="A line on why, for the next capture"
  ></Textarea>
</div>

<style>
  .into {
    display: grid;
    grid-template-columns: 70px minmax(0, 1fr);
    gap: 7px 12px;
    align-items: start;
  }
  label,
  .label {
    padding-top: 6px;
    color: var(--ink-2);
    font-size: 13px;
  }
</style>
