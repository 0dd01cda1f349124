<script lang="ts">
  import type { CopyHead } from '$lib/server/copies';
  import type { LeadItem } from '$lib/server/leads';
  import type { NoteItem } from '$lib/server/notes';
  import type { Passage } from '$lib/server/passages';
  import type { TaskItem } from '$lib/server/tasks';
  import type { Project, Section } from '$lib/server/projects';
  import ListedDialog from '../capture/ListedDialog.svelte';
  import NoteCard from '../notes/NoteCard.svelte';
  import NoteEntry from '../notes/NoteEntry.svelte';
  import { call, copyKind } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import { attempt } from '../frame/toasts.svelte';
  import { allows, Button, Checkbox, FileButton } from '../kit';
  import FromPrint from '../passages/FromPrint.svelte';
  import TaskList from '../reader/TaskList.svelte';
  import TintSwatch from '../reader/TintSwatch.svelte';
  import SheetHeading from './SheetHeading.svelte';

  interface Beside {
    source: { id: string };
    label: string;
    passages: Passage[];
    copies: CopyHead[];
    notes: NoteItem[];
    leads: LeadItem[];
    projects: Project[];
    projectId: string | undefined;
    /** Ids of the projects it is filed in. */
    filed: string[];
    sections: Section[];
    tasks: TaskItem[];
    /** Tags passages have. */
    passageTags: string[];
  }
  /** What hangs on a source: passages, copies, notes, leads met in it, where it is filed. */
  let { data }: { data: Beside } = $props();
  let noting = $state(false);
  let writing = $state(false);
  let listing = $state(false);

  async function attach(files: File[]) {
    for (const file of files)
      await attempt(() =>
        call('POST', `/api/sources/${data.source.id}/copies?name=${encodeURIComponent(file.name)}`, file),
      );
  }

  async function file(projectId: string, filed: boolean) {
    await attempt(() => call('POST', '/api/sources/file', { ids: [data.source.id], projectId, filed }));
    await renewed();
  }
</script>

<SheetHeading>Passages</SheetHeading>
{#if data.passages.length === 0}<p class="small-label">
    {data.copies.length ? 'None yet. Open the copy and select a sentence.' : 'None yet.'}
  </p>{/if}
{#each data.passages.slice(0, 6) as passage (passage.id)}
  <a
    class="passage"
    href={passage.copyId
      ? `/copies/${passage.copyId}?passage=${passage.id}`
      : `/passages?source=${data.source.id}`}
    ><TintSwatch tint={passage.tint} />
    {passage.gist || passage.exact.slice(0, 90) || passage.ownWords.slice(0, 90)}</a
  >
{/each}
<p class="acts">
  {#if data.passages.length}<a class="link" href="/passages?source={data.source.id}&sort=source"
      >All {data.passages.length}</a
    >{/if}
  <Button needs="annotate" small onclick={() => (writing = true)}>Write one from print</Button>
</p>
<FromPrint
  bind:open={writing}
  source={{ id: data.source.id, label: data.label }}
  offeredTags={data.passageTags}
/>

<SheetHeading>To do</SheetHeading>
<TaskList tasks={data.tasks} sourceId={data.source.id} where={false} />

<SheetHeading>Copies</SheetHeading>
{#each data.copies as copy (copy.id)}
  <p class="copy">
    <a class="link capital" href="/copies/{copy.id}">{copyKind(copy)}, captured {dateLabel(copy.captured)}</a>
    <span class="small-label" data-tip="SHA-256 {copy.sha256}"
      >{copy.address} · {Math.ceil(copy.size / 1024)} KB · SHA-256 {copy.sha256.slice(0, 12)}…</span
    >
  </p>
{:else}<p class="small-label">No document is kept.</p>{/each}
<FileButton small label="A document of this source" onfiles={attach}>Attach a file</FileButton>

<SheetHeading>Notes</SheetHeading>
{#each data.notes as note (note.id)}<NoteCard {note} where={false} />{/each}
{#if noting}<NoteEntry
    projectId={data.projectId ?? null}
    sourceId={data.source.id}
    label="A note on this source"
    autofocus
    onkept={() => (noting = false)}
  />
{:else}<Button needs="annotate" small onclick={() => (noting = true)}>Write a note</Button>{/if}

<SheetHeading>Leads met here</SheetHeading>
{#each data.leads.filter((l) => !l.ticked).slice(0, 5) as lead (lead.id)}
  <p class="small-label">{lead.title || lead.text.slice(0, 90)}</p>
{/each}
<a class="link" href="/leads?met={data.source.id}"
  >{data.leads.length ? `All ${data.leads.length}, or put down more` : 'Put down works it mentions'}</a
>
{#if data.copies.length && allows('edit')}
  <p class="acts"><Button small onclick={() => (listing = true)}>From its list of references…</Button></p>
  <ListedDialog
    bind:open={listing}
    from="/api/sources/{data.source.id}/references"
    projectId={data.projectId}
  />
{/if}

<SheetHeading>Filed in</SheetHeading>
{#each data.projects as project (project.id)}
  <label class="filed"
    ><Checkbox
      checked={data.filed.includes(project.id)}
      onchange={(e) => file(project.id, e.currentTarget.checked)}
    />
    {project.name}</label
  >
{/each}

{#if data.sections.length}<p class="small-label">
    Section: {data.sections.map((s) => s.name).join(', ')}
  </p>{/if}

<style>
  .capital::first-letter {
    text-transform: uppercase;
  }
  .passage {
    display: block;
    padding: 2px 0;
    font-size: 13px;
  }
  .passage:hover {
    text-decoration: underline;
  }
  .copy {
    display: grid;
    margin-bottom: 4px;
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-top: 4px;
  }
  .filed {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 2px 0;
  }
</style>
