<script lang="ts">
  import type { Section, Project } from '$lib/server/projects';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { narrow } from '../frame/narrowing';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, PageHead, Select } from '../kit';
  import CitedDialog from './CitedDialog.svelte';
  import type { listScope } from './list-scope';
  import StyleLanguage from './StyleLanguage.svelte';
  import StylePicker from './StylePicker.svelte';

  interface Props {
    data: {
      projects: Project[];
      projectId: string | undefined;
      sections: Section[];
      tags: string[];
      languages: { id: string; label: string }[];
      style: string;
      styleTitle: string;
      /** The language the style is written for, where it says one. */
      styleLanguage?: string | undefined;
      locale: string;
    };
    holds: ReturnType<typeof listScope>;
    group: string;
    /** Sources that show what a style looks like. */
    samples: string[];
    /** How the list stands. */
    said: string;
  }
  /** What a reference list holds, and how it is printed. */
  let { data, holds, group, samples, said }: Props = $props();
  let citing = $state(false);
  const project = $derived(data.projects.find((p) => p.id === data.projectId));
  const isProjectLook = $derived(project && project.style === data.style && project.locale === data.locale);

  async function keepLook() {
    if (!project) return;
    await attempt(async () => {
      await call('PATCH', `/api/projects/${project.id}`, { style: data.style, locale: data.locale });
      done(`${project.name} now prints in ${data.styleTitle}.`);
    });
    await renewed();
  }
</script>

<PageHead>
  <h1>Reference list</h1>
  <Select
    look="chip"
    aria-label="What the list holds"
    value={holds.name}
    onchange={(e) => {
      if (e.currentTarget.value !== 'text') return narrow({ scope: e.currentTarget.value });
      e.currentTarget.value = holds.name;
      citing = true;
    }}
  >
    {#if holds.name === 'cited'}<option value="cited">The {holds.ids.length} cited in the text</option>
    {:else if holds.ids.length}<option value="selection">The {holds.ids.length} selected</option>{/if}
    {#if project}<option value="project">{project.name}</option>{/if}
    <option value="library">The whole library</option>
    <option value="text">Cited in a text…</option>
    {#if data.sections.length}
      <optgroup label="Section">
        {#each data.sections as section (section.id)}<option value="section:{section.id}"
            >{section.name}</option
          >{/each}
      </optgroup>
    {/if}
    {#if data.tags.length}
      <optgroup label="Tag">
        {#each data.tags as tag (tag)}<option value="tag:{tag}">{tag}</option>{/each}
      </optgroup>
    {/if}
  </Select>
  <StylePicker
    id={data.style}
    title={data.styleTitle}
    locale={data.locale}
    {samples}
    onchoose={(style) => narrow({ style })}
  />
  <Select
    look="chip"
    aria-label="Language"
    value={data.locale}
    onchange={(e) => narrow({ locale: e.currentTarget.value })}
  >
    {#each data.languages as language (language.id)}<option value={language.id}>{language.label}</option
      >{/each}
  </Select>
  <StyleLanguage
    language={data.styleLanguage}
    locale={data.locale}
    onchoose={(locale) => narrow({ locale })}
  />
  <Select
    look="chip"
    aria-label="Grouping"
    value={group}
    onchange={(e) => narrow({ group: e.currentTarget.value || undefined })}
  >
    <option value="">In one list</option>
    <option value="kind">By kind of source</option>
    {#if data.sections.length}<option value="section">By section</option>{/if}
  </Select>
  {#if project && !isProjectLook}<Button small look="quiet" onclick={keepLook}>Use for {project.name}</Button
    >{/if}
  <Button small look="quiet" href="/styles?style={data.style}&locale={data.locale}"
    >Look into the style</Button
  >
  <span class="flex-1"></span>
  <span class="small-label" aria-live="polite">{said}</span>
</PageHead>

<CitedDialog bind:open={citing} />
