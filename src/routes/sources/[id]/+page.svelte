<script lang="ts">
  import { Button, Checkbox, Input, PageHead } from '$lib/ui/kit';
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { fieldName } from '$lib/core/source';
  import AsPrinted from '$lib/ui/source/AsPrinted.svelte';
  import Doubles from '$lib/ui/duplicates/Doubles.svelte';
  import RecordForm from '$lib/ui/source/RecordForm.svelte';
  import TintSwatch from '$lib/ui/reader/TintSwatch.svelte';
  import TypeGlyph from '$lib/ui/source/TypeGlyph.svelte';
  import { openCiting } from '$lib/ui/lists/citing.svelte';
  import { call, COPY_KINDS, isTyping } from '$lib/ui/frame/client';
  import { dateLabel, timeLabel } from '$lib/ui/frame/dates';
  import NoteCard from '$lib/ui/capture/NoteCard.svelte';
  import NoteEntry from '$lib/ui/capture/NoteEntry.svelte';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { editing, toField } from '$lib/ui/source/source-editing.svelte';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  const edit = editing(() => data.source);
  let lit = $state<string | undefined>();
  let history = $state(false);
  let noting = $state(false);

  $effect(() => {
    const { id } = data.source;
    void [data.source.revision, data.look.style, data.look.locale];
    untrack(() => void edit.print(id));
  });

  onMount(() => {
    if (location.hash.startsWith('#f-')) toField(location.hash.slice(3));
  });

  async function check(checked: boolean) {
    const { id, revision } = data.source;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/sources/${id}/check`, { base: revision, checked }),
    );
    if (made) done(checked ? 'Checked.' : 'Back in Intake.', [made.revisionId]);
  }

  async function bin(binned: boolean) {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids: [data.source.id], binned }),
    );
    if (!made) return;
    done(binned ? 'The source is in the bin.' : 'The source is back.', made.revisions);
    if (binned) await goto('/sources');
  }

  async function file(projectId: string, filed: boolean) {
    await attempt(() => call('POST', '/api/sources/file', { ids: [data.source.id], projectId, filed }));
    await renewed();
  }

  async function restore(number: number) {
    await attempt(async () => {
      await call('POST', `/api/sources/${data.source.id}/restore`, { number });
      done(`Revision ${number} is back.`);
    });
    await renewed();
  }

  function onkey(event: KeyboardEvent) {
    if (event.key === 'Escape' && !isTyping(event)) void goto('/sources');
  }
</script>

<svelte:head><title>{data.label} · Retexa</title></svelte:head>
<svelte:window onkeydown={onkey} />

<PageHead>
  <a class="small-label" href="/sources">‹ Sources</a>
  <TypeGlyph type={data.source.record.type} class="text-ink-3" />
  <h1 class="serif">{data.label}</h1>
  <span class="flex-1"></span>
  {#if data.source.binned}
    <span class="pencil-red">In the bin</span>
    <Button onclick={() => bin(false)}>Bring it back</Button>
  {:else}
    {#if data.source.checked}
      <span class="small-label">Checked {dateLabel(data.source.checked)}</span>
      <Button look="quiet" onclick={() => check(false)}>Send back to Intake</Button>
    {:else}
      <Button look="main" onclick={() => check(true)}>Looks right</Button>
    {/if}
    <Button onclick={() => openCiting([{ id: data.source.id, name: data.label }])}>Cite</Button>
    {#each data.copies.slice(0, 1) as copy (copy.id)}<Button href="/copies/{copy.id}">Read</Button>{/each}
    <Button onclick={() => bin(true)}>Put in the bin</Button>
  {/if}
</PageHead>

<Doubles id={data.source.id} doubles={data.doubles} />

<div class="sheet">
  <div class="record">
    <RecordForm
      record={data.source.record}
      findings={data.source.findings}
      offeredTags={data.tags}
      printed={data.printed}
      {lit}
      onedit={edit.edit}
      ontags={edit.tag}
      ontype={edit.type}
      onpoint={(field) => (lit = field)}
    />
  </div>
  <aside class="margin">
    <AsPrinted
      preview={edit.preview}
      style={`${data.look.name} · ${data.look.locale}`}
      {lit}
      onpoint={(field) => (lit = field)}
      onchoose={toField}
      onfix={edit.edit}
    />
    <h3>Passages</h3>
    {#if data.passages.length === 0}<p class="small-label">
        {data.copies.length ? 'None yet. Open the copy and select a sentence.' : 'None yet.'}
      </p>{/if}
    {#each data.passages.slice(0, 6) as passage (passage.id)}
      <a class="passage" href="/copies/{passage.copyId}?passage={passage.id}"
        ><TintSwatch tint={passage.tint} /> {passage.gist || passage.exact.slice(0, 90)}</a
      >
    {/each}
    {#if data.passages.length > 6}<a class="link" href="/copies/{data.passages[0]?.copyId}"
        >All {data.passages.length}</a
      >{/if}

    <h3>Copies</h3>
    {#each data.copies as copy (copy.id)}
      <p class="copy">
        <a class="link capital" href="/copies/{copy.id}"
          >{COPY_KINDS[copy.kind]}, captured {dateLabel(copy.captured)}</a
        >
        <span class="small-label" title="SHA-256 {copy.sha256}"
          >{copy.address} · {Math.ceil(copy.size / 1024)} KB · SHA-256 {copy.sha256.slice(0, 12)}…</span
        >
      </p>
    {:else}<p class="small-label">No document is kept.</p>{/each}

    <h3>Notes</h3>
    {#each data.notes as note (note.id)}<NoteCard {note} where={false} />{/each}
    {#if noting}<NoteEntry
        projectId={data.projectId ?? null}
        sourceId={data.source.id}
        label="A note on this source"
        autofocus
        onkept={() => (noting = false)}
      />
    {:else}<Button small onclick={() => (noting = true)}>Write a note</Button>{/if}

    <h3>Leads met here</h3>
    {#each data.leads.filter((l) => !l.ticked).slice(0, 5) as lead (lead.id)}
      <p class="small-label">{lead.title || lead.text.slice(0, 90)}</p>
    {/each}
    <a class="link" href="/leads?met={data.source.id}"
      >{data.leads.length ? `All ${data.leads.length}, or put down more` : 'Put down works it mentions'}</a
    >

    <h3>Filed in</h3>
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

    <h3><label for="citekey">Citekey</label></h3>
    <Input id="citekey" value={data.source.citekey} onchange={(e) => edit.key(e.currentTarget.value)} />

    <h3>
      <Button look="bare" class="history" onclick={() => (history = !history)} aria-expanded={history}
        >History · {data.history.length}</Button
      >
    </h3>
    {#if history}
      <ol class="revisions">
        {#each data.history as revision, i (revision.number)}
          <li>
            <span
              >{revision.why}{#if revision.fields.length}:
                {#each revision.fields.slice(0, 5) as { field, was, is }, n (field)}{n
                    ? '; '
                    : ' '}{fieldName(field)}{#if was || is}&nbsp;<del>{was || 'nothing'}</del> →
                    <ins>{is || 'nothing'}</ins>{/if}{/each}{/if}</span
            >
            <span class="small-label">{timeLabel(revision.at)}</span>
            {#if i > 0}<Button small look="quiet" onclick={() => restore(revision.number)}>Bring back</Button
              >{/if}
          </li>
        {/each}
      </ol>
    {/if}
  </aside>
</div>

<style>
  .capital::first-letter {
    text-transform: uppercase;
  }
  .sheet {
    display: grid;
    flex: 1;
    grid-template-columns: minmax(0, 1fr) 350px;
    min-height: 0;
  }
  .record {
    padding: 12px 26px 40px;
    container-type: inline-size;
    overflow-y: auto;
  }
  .margin {
    padding: 16px 22px 40px;
    border-left: 1px solid var(--margin-rule);
    overflow-y: auto;
  }
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
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
  .filed {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 2px 0;
  }
  aside :global(.history) {
    cursor: pointer;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  del {
    color: var(--ink-3);
  }
  ins {
    text-decoration: none;
    font-weight: 550;
  }
  .revisions li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: center;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 12.5px;
  }
  @media (max-width: 980px) {
    .sheet {
      display: flex;
      flex-direction: column-reverse;
      justify-content: flex-end;
    }
    .margin,
    .record {
      border: 0;
      overflow: visible;
    }
  }
  @media print {
    .sheet {
      display: flex;
      flex-direction: column-reverse;
    }
    .record,
    .margin {
      padding: 0;
      border: 0;
      overflow: visible;
    }
  }
</style>
