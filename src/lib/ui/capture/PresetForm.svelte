<script lang="ts">
  import { Button, Checkbox, Input, Select } from '../kit';
  import { onMount, untrack } from 'svelte';
  import { CSL_TYPES, fieldLabel, isTextVariable, TYPE_LABELS, type Variable } from '$lib/core/source';
  import { presetWords, type PresetWords } from '$lib/core/forms';
  import type { Preset, PresetExample } from '$lib/server/presets';
  import type { Project, Section } from '$lib/server/projects';
  import { call, debounce } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import TagsField from '../source/TagsField.svelte';
  import { formOf } from '../frame/forms';
  import { done } from '../frame/toasts.svelte';

  interface Props {
    preset: Preset | undefined;
    projects: Project[];
    sections: Section[];
    tags: string[];
    onclose: () => void;
  }
  let { preset, projects, sections, tags, onclose }: Props = $props();

  const blank: PresetWords = {
    name: '',
    projectId: null,
    sectionId: null,
    type: null,
    asked: ['title', 'author', 'issued'],
    defaults: {},
    tags: [],
    keepPage: true,
    keepPdf: true,
  };
  // svelte-ignore state_referenced_locally
  const { id, ...given } = preset ?? { id: undefined, ...blank };
  const {
    form: said,
    errors,
    enhance,
  } = formOf(presetWords, structuredClone($state.snapshot(given)) as PresetWords, async (words) => {
    await call('POST', id ? `/api/presets/${id}` : '/api/presets', words);
    done(id ? 'Preset changed.' : 'Preset made.');
    await renewed();
    onclose();
  });
  let fields = $state<Variable[]>([]);
  let example = $state<PresetExample | undefined>();
  let asked = 0;

  async function look() {
    const mine = ++asked;
    const answer = await call<{ example?: PresetExample; fields: Variable[] }>(
      'POST',
      '/api/presets/example',
      $said,
    ).catch(() => undefined);
    if (!answer || mine !== asked) return;
    ({ fields, example } = { example: undefined, ...answer });
  }
  const later = debounce(() => void look(), 200);
  onMount(look);
  $effect(() => {
    JSON.stringify($said);
    untrack(later);
  });

  const ask = (field: Variable, on: boolean) =>
    ($said.asked = on ? [...$said.asked, field] : $said.asked.filter((f) => f !== field));
  const setDefault = (field: string, value: string) => {
    const { [field]: _gone, ...rest } = $said.defaults;
    $said.defaults = value.trim() ? { ...rest, [field]: value.trim() } : rest;
  };
</script>

<form class="preset" method="POST" use:enhance>
  <div class="says">
    <label for="p-name">Name</label>
    <div>
      <Input
        id="p-name"
        bind:value={$said.name}
        placeholder="News for the thesis"
        maxlength="120"
        aria-invalid={$errors.name ? 'true' : undefined}
      />
      {#if $errors.name}<span class="pencil-red text-[13px]" role="alert">{$errors.name.join(' ')}</span>{/if}
    </div>
    <label for="p-type">Kind of source</label>
    <Select
      id="p-type"
      value={$said.type ?? ''}
      onchange={(e) => ($said.type = (e.currentTarget.value || null) as PresetWords['type'])}
    >
      <option value="">Any kind</option>
      {#each CSL_TYPES as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
    </Select>
    <label for="p-project">Project</label>
    <Select
      id="p-project"
      value={$said.projectId ?? ''}
      onchange={(e) => {
        $said.projectId = e.currentTarget.value || null;
        $said.sectionId = null;
      }}
    >
      <option value="">The one chosen when capturing</option>
      {#each projects as project (project.id)}<option value={project.id}>{project.name}</option>{/each}
    </Select>
    {#if sections.some((s) => s.projectId === $said.projectId)}
      <label for="p-section">Section</label>
      <Select
        id="p-section"
        value={$said.sectionId ?? ''}
        onchange={(e) => ($said.sectionId = e.currentTarget.value || null)}
      >
        <option value="">None yet</option>
        {#each sections.filter((s) => s.projectId === $said.projectId) as section (section.id)}<option
            value={section.id}>{section.name}</option
          >{/each}
      </Select>
    {/if}
    <span class="label">Tags</span>
    <TagsField tags={$said.tags} offered={tags} onchange={(t) => ($said.tags = t)} />
    <span class="label">Keep</span>
    <div class="line">
      <label><Checkbox bind:checked={$said.keepPage} /> the page</label>
      <label><Checkbox bind:checked={$said.keepPdf} /> the PDF it names</label>
    </div>
    <span class="label">Fields</span>
    <ul class="fields" aria-label="Fields">
      {#each fields as field (field)}
        <li>
          <label
            ><Checkbox
              checked={$said.asked.includes(field)}
              onchange={(e) => ask(field, e.currentTarget.checked)}
            />
            {fieldLabel(field)}</label
          >
          {#if isTextVariable(field) && field !== 'title'}
            <Input
              aria-label="{fieldLabel(field)} where the page says nothing"
              placeholder="where the page says nothing"
              value={$said.defaults[field] ?? ''}
              oninput={(e) => setDefault(field, e.currentTarget.value)}
            />
          {/if}
        </li>
      {/each}
    </ul>
  </div>
  <aside class="example" aria-label="Example">
    <h3>On one of your own</h3>
    {#if example}
      <p class="small-label">{example.label}</p>
      <p class="serif reference">{@html example.reference?.html ?? ''}</p>
      <h3>Shown to check</h3>
      <dl>
        {#each example.asked as { field, label, value, given: fromPreset } (field)}
          <dt>{label}</dt>
          <dd class:pencil-blue={fromPreset}>{value || '—'}{fromPreset ? ', from the preset' : ''}</dd>
        {:else}<p class="small-label">Nothing; it goes straight to Intake.</p>{/each}
      </dl>
      <h3>Filled without asking</h3>
      <p class="small-label">{example.silent.join(', ') || 'nothing'}</p>
    {:else}<p class="small-label">There is no source of this kind in the library yet to try it on.</p>{/if}
    <div class="line">
      <Button look="main" type="submit">{id ? 'Save' : 'Make the preset'}</Button>
      <Button look="quiet" onclick={onclose}>Leave it</Button>
    </div>
  </aside>
</form>

<style>
  .preset {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 320px;
    border: 1px solid var(--rule);
    border-radius: 8px;
  }
  .says {
    display: grid;
    grid-template-columns: 108px minmax(0, 1fr);
    gap: 8px 12px;
    align-content: start;
    padding: 16px;
  }
  .says > label,
  .label {
    padding-top: 6px;
    color: var(--ink-2);
    font-size: 13px;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 16px;
    min-height: 32px;
  }
  .fields {
    max-height: 330px;
    padding: 4px 0;
    border: 1px solid var(--rule);
    border-radius: 6px;
    overflow-y: auto;
  }
  .fields li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    align-items: center;
    gap: 10px;
    padding: 2px 10px;
  }
  .fields :global(input:not([type])) {
    min-height: 26px;
    font-size: 13px;
  }
  .example {
    display: grid;
    gap: 6px;
    align-content: start;
    padding: 16px;
    border-left: 1px solid var(--margin-rule);
    background: var(--side);
  }
  h3 {
    margin-top: 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  .reference {
    overflow-wrap: anywhere;
    font-size: 15px;
    line-height: 1.45;
  }
  dl {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
    gap: 3px 10px;
    font-size: 13px;
  }
  dt {
    color: var(--ink-3);
  }
  dd {
    overflow-wrap: anywhere;
  }
  @media (max-width: 900px) {
    .preset {
      grid-template-columns: minmax(0, 1fr);
    }
    .example {
      border-top: 1px solid var(--rule);
      border-left: 0;
    }
  }
</style>
