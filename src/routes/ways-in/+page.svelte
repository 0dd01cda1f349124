<script lang="ts">
  import { Button, PageHead } from '$lib/ui/kit';
  import { TYPE_LABELS } from '$lib/core/source';
  import type { Preset } from '$lib/server/presets';
  import PresetForm from '$lib/ui/capture/PresetForm.svelte';
  import { bookmarklet } from '$lib/ui/capture/bookmarklet';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, doneWithUndo } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  let editing = $state<Preset | 'new' | undefined>();
  const project = (id: string | null) => data.projects.find((p) => p.id === id)?.name;

  async function remove(preset: Preset) {
    const made = await attempt(() =>
      call<{ removed: Preset }>('POST', `/api/presets/${preset.id}`, { remove: true }),
    );
    if (!made) return;
    await renewed();
    const { id: _id, ...words } = made.removed;
    doneWithUndo(`The preset “${preset.name}” is gone.`, async () => {
      await call('POST', '/api/presets', words);
      await renewed();
    });
  }
</script>

<svelte:head><title>Ways in · Retexa</title></svelte:head>

<PageHead>
  <h1>Ways in</h1>
  <span class="sub">how a work gets from where you meet it into the library</span>
</PageHead>

<div class="body">
  <section>
    <h2>From any page in the browser</h2>
    <p>
      Drag this to the bar of bookmarks. Used on a page, it hands the page over as you see it, behind a
      sign-in too, and what you have selected on it becomes a quotation.
    </p>
    <p class="line">
      <Button look="main" href={bookmarklet(data.origin)} onclick={(e) => e.preventDefault()}
        >Keep in Retexa</Button
      >
      <a class="link" href="/capture" target="retexa-capture">Open the capture window</a>
    </p>
    <p class="small-label">
      The capture window also stands alone: make a shortcut to <code>{data.origin}/capture</code>, for a
      thought or a book in the hand. On a phone, install Retexa from the browser’s menu; it then appears where
      the phone shares pages.
    </p>
  </section>

  <section>
    <div class="line">
      <h2>Capture presets</h2>
      <span class="flex-1"></span>
      {#if !editing}<Button onclick={() => (editing = 'new')}>New preset</Button>{/if}
    </div>
    {#if editing}
      {#key editing}
        <PresetForm
          preset={editing === 'new' ? undefined : editing}
          projects={data.projects}
          sections={data.sections}
          tags={data.tags}
          onclose={() => (editing = undefined)}
        />
      {/key}
    {:else if data.presets.length === 0}
      <p class="none">
        None yet. A preset says what happens when one kind of source is captured into one project: which
        fields are shown to check, which values are filled in where the page says nothing, which tags and
        section it gets, and whether page and PDF are kept.
      </p>
    {:else}
      <ul class="presets">
        {#each data.presets as preset (preset.id)}
          <li data-preset={preset.id}>
            <div>
              <p class="name">{preset.name}</p>
              <p class="small-label">
                {[
                  preset.type ? TYPE_LABELS[preset.type] : 'any kind of source',
                  project(preset.projectId) ?? 'any project',
                  preset.asked.length ? `${preset.asked.length} fields asked` : 'nothing asked',
                  preset.tags.length ? `tagged ${preset.tags.join(', ')}` : '',
                  preset.keepPage ? '' : 'page not kept',
                  preset.keepPdf ? '' : 'PDF not kept',
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            <Button small href="/capture?preset={preset.id}" target="retexa-capture">Open it</Button>
            <Button small onclick={() => (editing = preset)}>Change</Button>
            <Button small look="quiet" onclick={() => remove(preset)}>Take away</Button>
          </li>
        {/each}
      </ul>
    {/if}
  </section>
</div>

<style>
  .body {
    display: grid;
    gap: 30px;
    max-width: 980px;
    padding: 20px 26px 60px;
  }
  section {
    display: grid;
    gap: 10px;
  }
  h2 {
    font-family: var(--font-serif);
    font-size: 18px;
    font-weight: 600;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 16px;
  }
  section > p {
    max-width: 70ch;
    color: var(--ink-2);
  }
  .none {
    padding: 6px 0 10px;
  }
  code {
    font-size: 12px;
  }
  .presets {
    border: 1px solid var(--rule);
    border-radius: 8px;
  }
  .presets li {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 9px 14px;
  }
  .presets li + li {
    border-top: 1px solid var(--rule);
  }
  .presets div {
    flex: 1;
  }
  .name {
    font-weight: 650;
  }
</style>
