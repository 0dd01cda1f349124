<script lang="ts">
  import { Button, Input, Progress, Select, Textarea } from '$lib/ui/kit';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { CSL_TYPES, recognise, TYPE_LABELS, type CslType } from '$lib/core/source';
  import type { CaptureResult } from '$lib/server/capture';
  import IntoPanel from '$lib/ui/capture/IntoPanel.svelte';
  import ListChooser from '$lib/ui/capture/ListChooser.svelte';
  import Mark from '$lib/ui/frame/Mark.svelte';
  import NoteEntry from '$lib/ui/capture/NoteEntry.svelte';
  import RecordForm from '$lib/ui/source/RecordForm.svelte';
  import { isHandedPage, isOwnAddress, type HandedPage } from '$lib/ui/capture/bookmarklet';
  import { ApiError, call } from '$lib/ui/frame/client';
  import { intoOf, nowhere, type Going } from '$lib/ui/capture/into.svelte';
  import { steps } from '$lib/ui/frame/live.svelte';
  import { editing } from '$lib/ui/source/source-editing.svelte';
  import { attempt, done, trouble } from '$lib/ui/frame/toasts.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  const given = data.given;
  let mode = $state<'page' | 'thought' | 'hand'>('page');
  let text = $state(given.url || given.title);
  let selection = $state(given.selection);
  let handed = $state<HandedPage | undefined>();
  let hint = $state(given.trouble);
  let going = $state<Going>(nowhere());
  let type = $state<CslType>('book');
  let title = $state('');
  let isbn = $state('');
  let choosing = $state(false);
  const edit = editing(() => data.kept!);

  // svelte-ignore state_referenced_locally
  if (data.preset) {
    going.presetId = data.preset.id;
    if (data.preset.projectId) going.projectId = data.preset.projectId;
    if (data.preset.sectionId) going.sectionId = data.preset.sectionId;
    if (data.preset.type) type = data.preset.type;
  }

  const result = $derived(
    data.job?.kind === 'capture' && data.job.state === 'done'
      ? (data.job.result as CaptureResult)
      : undefined,
  );
  const going_on = $derived(data.job && (data.job.state === 'running' || data.job.state === 'waiting'));
  /** After a capture only the fields the preset asks for are shown; without one, those the style prints first. */
  const asked = $derived(data.preset?.asked ?? []);

  onMount(() => {
    const hear = (event: MessageEvent) => {
      if (!isHandedPage(event.data) || event.source !== window.opener) return;
      if (!isOwnAddress(event.data, event.origin)) {
        hint = 'The page that opened this window names an address that is not its own. It was not taken.';
        return;
      }
      handed = event.data;
      text = handed.address;
      if (handed.selection) selection = handed.selection;
    };
    window.addEventListener('message', hear);
    // The page this window was opened from may be any; it is told only that the window is ready.
    if (given.handed) (window.opener as Window | null)?.postMessage('retexa:ready', '*');
    return () => window.removeEventListener('message', hear);
  });

  async function follow(jobs: { id: string }[]) {
    const url = new URL(page.url);
    url.searchParams.set('job', jobs[0]!.id);
    await goto(url, { replaceState: true, invalidateAll: true });
  }

  async function capture(event?: Event) {
    event?.preventDefault();
    hint = '';
    const where = intoOf(going);
    try {
      if (handed && text === handed.address) {
        const { html, address, title: name } = handed;
        await follow(
          (
            await call<{ jobs: { id: string }[] }>('POST', '/api/captures/page', {
              ...where,
              html,
              address,
              title: name,
              selection,
            })
          ).jobs,
        );
      } else {
        const quoted = selection.trim() ? { selection } : {};
        await follow(
          (await call<{ jobs: { id: string }[] }>('POST', '/api/captures', { ...where, ...quoted, text }))
            .jobs,
        );
      }
    } catch (error) {
      if (error instanceof ApiError && error.status === 422) hint = error.message;
      else trouble(error);
    }
  }

  async function byHand(event: Event) {
    event.preventDefault();
    const what = recognise(text);
    const made = await attempt(() =>
      call<{ id: string }>('POST', '/api/sources', {
        type,
        ...(title.trim() ? { title } : {}),
        ...(isbn.trim() ? { ISBN: isbn } : {}),
        ...(what.kind === 'address' ? { URL: what.address } : {}),
        into: intoOf(going),
      }),
    );
    if (!made) return;
    done('It waits in Intake.');
    [title, isbn] = ['', ''];
  }

  const act = (what: Record<string, unknown>) =>
    attempt(() => call('POST', `/api/jobs/${data.job!.id}`, what));
  async function another() {
    [text, selection, handed] = ['', '', undefined];
    going.note = '';
    const url = new URL(page.url);
    for (const name of [...url.searchParams.keys()]) if (name !== 'preset') url.searchParams.delete(name);
    await goto(url, { replaceState: true, invalidateAll: true });
  }
  async function undo() {
    if (result?.kind !== 'kept') return;
    if (result.added) {
      if (!(await act({ act: 'take-away' }))) return;
      done('What was added is taken away again; the source is as it was.');
      return another();
    }
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids: [result.sourceId], binned: true }),
    );
    if (!made) return;
    await act({ act: 'dismiss' });
    done('The capture is in the bin.', made.revisions);
    await another();
  }
</script>

<svelte:head><title>Capture · Retexa</title></svelte:head>

<div class="window">
  <header>
    <Mark />
    <h1>{data.preset?.name ?? 'Capture'}</h1>
    <span class="flex-1"></span>
    <a href="/intake" target="retexa">Open Retexa</a>
  </header>

  {#if data.job}
    <section class="outcome" aria-label="What came of it">
      {#if going_on}
        <p class="serif got">{text || data.job.id}</p>
        <Progress label="Capturing" />
        <p class="small-label" role="status">{steps[data.job.id]?.step ?? 'Starting'}</p>
        <p class="small-label">You can close this window; the capture goes on.</p>
      {:else if data.job.state === 'failed'}
        <p class="pencil-red" role="alert">{data.job.error?.message}</p>
        <div class="line">
          <Button look="main" onclick={() => act({ act: 'retry' })}>Try again</Button>
          <Button onclick={another}>Back</Button>
        </div>
      {:else if result?.kind === 'kept'}
        <p class="serif got" role="status">{result.label}</p>
        {#each result.notes as note (note)}<p class="small-label">{note}</p>{/each}
        {#each result.doubles as double (double.id)}<p class="pencil-blue">
            Looks like one you have: {double.label}.
          </p>{/each}
        {#if data.kept && data.preset && asked.length}
          <RecordForm
            record={data.kept.record}
            findings={data.kept.findings.filter((f) => asked.includes(f.field as never))}
            offeredTags={[]}
            only={asked}
            onedit={edit.edit}
            ontags={edit.tag}
          />
        {/if}
        <div class="line">
          <Button look="main" href="/intake?at={result.sourceId}" target="retexa">Check it</Button>
          <Button onclick={another}>Another</Button>
          {#if !result.toExisting}<Button look="quiet" onclick={undo}>Undo</Button>{/if}
          <Button look="quiet" onclick={() => window.close()}>Close</Button>
        </div>
      {:else if result?.kind === 'here'}
        <p class="serif got">{result.label}</p>
        <p class="pencil-blue">
          You have this already: {result.doubles[0]?.label} ({result.doubles[0]?.reason}). Nothing is saved
          yet.
        </p>
        <div class="line">
          <Button href="/sources/{result.doubles[0]?.id}" target="retexa">Open it</Button>
          {#if result.hasCopy}<Button
              look="main"
              onclick={() => act({ act: 'add-copy', sourceId: result.doubles[0]!.id })}
              >Add as another copy</Button
            >{/if}
          <Button onclick={() => act({ act: 'keep-both' })}>Keep both</Button>
          <Button look="quiet" onclick={another}>Leave it</Button>
        </div>
      {:else if result?.kind === 'list'}
        <p class="serif got">{result.title}</p>
        <p class="small-label">A list of {result.works.length} works. Nothing is saved yet.</p>
        <div class="line">
          <Button look="main" onclick={() => (choosing = true)}>Choose which to keep</Button>
          <Button look="quiet" onclick={another}>Leave it</Button>
        </div>
      {:else if result?.kind === 'several'}
        <p class="serif got" role="status">{result.kept.length} captured</p>
        {#each result.failed as failure (failure.title + failure.reason)}<p class="small-label">
            {failure.title}: {failure.reason}
          </p>{/each}
        <Button onclick={another}>Another</Button>
      {:else}
        <p class="small-label">Put away.</p>
        <Button onclick={another}>Another</Button>
      {/if}
    </section>
    {#if choosing}
      <ListChooser
        job={data.job}
        onclose={() => (choosing = false)}
        onchoose={(picks) => {
          choosing = false;
          void act({ act: 'choose', picks });
        }}
      />
    {/if}
  {:else}
    <div class="modes" role="group" aria-label="What is it?">
      <Button look="chip" aria-pressed={mode === 'page'} onclick={() => (mode = 'page')}
        >A page or number</Button
      >
      <Button look="chip" aria-pressed={mode === 'hand'} onclick={() => (mode = 'hand')}>In the hand</Button>
      <Button look="chip" aria-pressed={mode === 'thought'} onclick={() => (mode = 'thought')}
        >A thought</Button
      >
    </div>
    {#if mode === 'page'}
      <form onsubmit={capture}>
        <label for="c-what">Address, DOI, ISBN or another number</label>
        <Input id="c-what" bind:value={text} autocomplete="off" spellcheck="false" />
        {#if handed && text === handed.address}<p class="small-label">
            {new URL(handed.address).host} hands this page over as you see it: {handed.title}
          </p>
        {:else if given.title && given.title !== text}<p class="small-label">{given.title}</p>{/if}
        {#if selection || handed}
          <label for="c-selection">Selected: becomes a quotation</label>
          <Textarea id="c-selection" class="font-serif" rows="3" bind:value={selection}></Textarea>
        {/if}
        <IntoPanel bind:going projectId={data.projectId} withPreset={!data.preset} />
        {#if hint}<p class="pencil-blue" role="alert">{hint}</p>{/if}
        <Button look="main" type="submit" disabled={!text.trim()}>Capture</Button>
      </form>
    {:else if mode === 'thought'}
      <NoteEntry projectId={going.projectId ?? data.projectId ?? null} sourceId={null} label="A thought" />
    {:else}
      <form onsubmit={byHand}>
        <label for="c-type">Kind of source</label>
        <Select id="c-type" bind:value={type}>
          {#each CSL_TYPES as t (t)}<option value={t}>{TYPE_LABELS[t]}</option>{/each}
        </Select>
        <label for="c-title">Title</label>
        <Input id="c-title" class="font-serif" bind:value={title} />
        <label for="c-isbn">ISBN, if it has one</label>
        <div class="line">
          <Input id="c-isbn" bind:value={isbn} />
          <Button
            disabled={recognise(isbn).kind !== 'isbn'}
            onclick={() => {
              text = isbn;
              void capture();
            }}>Look it up</Button
          >
        </div>
        <IntoPanel bind:going projectId={data.projectId} withPreset={!data.preset} />
        <Button look="main" type="submit" disabled={!title.trim() && !isbn.trim()}>Start the source</Button>
      </form>
    {/if}
  {/if}
</div>

<style>
  .window {
    display: flex;
    flex-direction: column;
    max-width: 560px;
    min-height: 100dvh;
    margin: 0 auto;
    background: var(--page);
  }
  header {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 10px 16px;
    background: #123644;
    color: #fff;
  }
  header h1 {
    font-size: 16px;
  }
  header a {
    color: #d5e2e6;
    font-size: 13px;
  }
  .modes {
    display: flex;
    gap: 6px;
    padding: 12px 16px 0;
  }
  form,
  .outcome,
  .window > :global(.entry) {
    display: grid;
    gap: 7px;
    padding: 12px 16px 20px;
  }
  form > label {
    color: var(--ink-2);
    font-size: 13px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .line :global(input) {
    flex: 1;
    width: auto;
  }
  .got {
    font-size: 17px;
    font-weight: 600;
    line-height: 1.35;
  }
</style>
