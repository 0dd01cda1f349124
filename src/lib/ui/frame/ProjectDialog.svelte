<script lang="ts">
  import { renew } from './live.svelte';
  import { styleLabel } from '$lib/core/citing';
  import { projectWords } from '$lib/core/forms';
  import type { Project } from '$lib/server/projects';
  import { Button, Checkbox, Dialog, Field, Input, Select } from '../kit';
  import StyleLanguage from '../lists/StyleLanguage.svelte';
  import StylePicker from '../lists/StylePicker.svelte';
  import { call } from './client';
  import { formOf } from './forms';
  import { attempt, done, doneWithUndo } from './toasts.svelte';

  interface Props {
    /** The one that is changed; without, a new one is made. */
    project?: Project | undefined;
    /** What its style is called. */
    styleName: string;
    languages: { id: string; label: string }[];
    onclose: () => void;
  }
  let { project, styleName, languages, onclose }: Props = $props();
  // svelte-ignore state_referenced_locally
  const of = project;
  let open = $state(true);
  // svelte-ignore state_referenced_locally
  let styleTitle = $state(of ? styleName : styleLabel('apa'));
  /** Of a style that was chosen just now. */
  let styleLanguage: string | undefined = $state();

  const { form, errors, enhance } = formOf(
    projectWords,
    of
      ? { name: of.name, style: of.style, locale: of.locale, newFirst: of.newFirst }
      : { name: '', style: 'apa', locale: 'en-US', newFirst: false },
    async (said) => {
      await (of ? call('PATCH', `/api/projects/${of.id}`, said) : call('POST', '/api/projects', said));
      open = false;
      if (of) done(`${said.name} is changed.`);
      await renew('*');
    },
  );

  async function setAside(how: { putAway: boolean } | { binned: boolean }) {
    const { id, name } = of!;
    const set = (to: typeof how) => call('POST', `/api/projects/${id}`, to);
    if (!(await attempt(() => set(how)))) return;
    open = false;
    const [key, aside] = Object.entries(how)[0] as ['putAway' | 'binned', boolean];
    const said = key === 'binned' ? 'is in the bin' : aside ? 'is put away' : 'is taken up again';
    doneWithUndo(`${name} ${said}.`, async () => {
      await set({ [key]: !aside } as typeof how);
      if (key === 'binned') await call('POST', '/api/scope', { projectId: id });
      await renew('*');
    });
    await renew('*');
  }
</script>

<Dialog bind:open title={of ? 'Change the project' : 'New project'} size="sm" {onclose}>
  <form method="POST" use:enhance class="grid gap-3">
    <Field label="Name" errors={$errors.name}>
      {#snippet children(attributes)}<Input bind:value={$form.name} {...attributes} />{/snippet}
    </Field>
    <div>
      <span class="small-label">Citing style</span>
      <StylePicker
        inline
        id={$form.style}
        title={styleTitle}
        locale={$form.locale}
        onchoose={(style, title, language) =>
          ([$form.style, styleTitle, styleLanguage] = [style, title, language])}
      />
    </div>
    <label>
      <span class="small-label">Language</span>
      <Select bind:value={$form.locale}>
        {#each languages as language (language.id)}<option value={language.id}>{language.label}</option
          >{/each}
      </Select>
    </label>
    <StyleLanguage
      language={styleLanguage}
      locale={$form.locale}
      onchoose={(language) => ($form.locale = language)}
    />
    <label class="flex items-center gap-2 text-sm">
      <Checkbox bind:checked={$form.newFirst} />
      What is placed in a section stands first there
    </label>
    <div class="flex items-center gap-2">
      <Button look="main" type="submit">{of ? 'Keep the changes' : 'Make the project'}</Button>
      {#if of}
        <span class="flex-1"></span>
        <Button onclick={() => setAside({ putAway: !of.putAway })}
          >{of.putAway ? 'Take it up again' : 'Put it away'}</Button
        >
        <Button onclick={() => setAside({ binned: true })}>Put it in the bin</Button>
      {/if}
    </div>
    {#if of}<p class="small-label">
        Put away, a project stays as it is and stands last in the menu. In the bin, its sources stay in the
        library.
      </p>{/if}
  </form>
</Dialog>
