<script lang="ts">
  import type { OutlineOutput } from '$lib/server/outline';
  import { call, downloadMade, type MadeFile } from '../frame/client';
  import { attempt, change, done } from '../frame/toasts.svelte';
  import { readDocx } from '../lists/read-docx';
  import { allows, Button, Checkbox, FileButton, Popover } from '../kit';

  /** The outline of a project as a file, cited in its style; and an outline from a file. */
  let { projectId, disabled }: { projectId: string; disabled: boolean } = $props();
  const FILES: [OutlineOutput, string][] = [
    ['docx', '.docx'],
    ['html', 'HTML'],
    ['markdown', 'Markdown'],
    ['opml', 'OPML'],
  ];
  let quotations = $state(true);
  let busy = $state(false);
  const id = $props.id();
  async function save(as: OutlineOutput) {
    busy = true;
    await attempt(async () => {
      const made = await call<MadeFile>('POST', `/api/projects/${projectId}/outline/out`, { as, quotations });
      downloadMade(made);
      done(`${made.name} is saved.`);
    });
    busy = false;
  }
  async function read([file]: File[]) {
    if (!file) return;
    busy = true;
    const text = await attempt(async () =>
      /\.docx$/i.test(file.name)
        ? readDocx(new Uint8Array(await file.arrayBuffer()), 'outline')
        : file.text(),
    );
    if (text === undefined) {
      busy = false;
      return;
    }
    await change<{ sections: number; said: number; back?: unknown }>(
      `/api/projects/${projectId}/outline/in`,
      { name: file.name, text },
      ({ sections, said }) =>
        `${file.name}: ${sections.toLocaleString('en')} sections with ${said.toLocaleString('en')} sentences and questions, at the end of the outline.`,
    );
    busy = false;
  }
</script>

{#if allows('edit')}<FileButton
    label="A file with an outline"
    accept=".md,.markdown,.txt,.opml,.docx"
    disabled={busy}
    onfiles={read}>Read an outline…</FileButton
  >{/if}

<Button id="outline-out-{id}" {disabled}>Save the outline…</Button>
<Popover triggeredBy="#outline-out-{id}" label="Save the outline" placement="bottom">
  <div class="out">
    <p class="small-label">Sections, what stands in them with its citations, and the references</p>
    <Checkbox bind:checked={quotations}>with the words of the works</Checkbox>
    <div class="files">
      {#each FILES as [as, name] (as)}<Button small disabled={busy} onclick={() => save(as)}>{name}</Button
        >{/each}
    </div>
  </div>
</Popover>

<style>
  .out {
    display: grid;
    gap: 10px;
    max-width: 300px;
    font-size: 13px;
  }
  .files {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
