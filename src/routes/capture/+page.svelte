<script lang="ts">
  import { Button, Input, Textarea } from '$lib/ui/kit';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { recognise } from '$lib/core/source';
  import type { FromPage } from '$lib/server/passages';
  import IntoPanel from '$lib/ui/capture/IntoPanel.svelte';
  import CaptureOutcome from '$lib/ui/capture/CaptureOutcome.svelte';
  import HandForm from '$lib/ui/capture/HandForm.svelte';
  import JobGoing from '$lib/ui/capture/JobGoing.svelte';
  import Mark from '$lib/ui/frame/Mark.svelte';
  import PageHere from '$lib/ui/capture/PageHere.svelte';
  import NoteEntry from '$lib/ui/notes/NoteEntry.svelte';
  import RecordForm from '$lib/ui/source/RecordForm.svelte';
  import { isHandedPage, isOwnAddress, type HandedPage } from '$lib/ui/capture/bookmarklet';
  import { ApiError, call } from '$lib/ui/frame/client';
  import { intoOf, nowhere, type Going } from '$lib/ui/capture/into.svelte';
  import { actOn, givenTo, isGoing } from '$lib/ui/capture/jobs';
  import { editing } from '$lib/ui/source/source-editing.svelte';
  import { isUnreached, WAITS, waitFor } from '$lib/ui/capture/sending.svelte';
  import { trouble } from '$lib/ui/frame/toasts.svelte';
  import Clash from '$lib/ui/source/Clash.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  const given = data.given;
  let mode = $state<'page' | 'thought' | 'hand'>('page');
  let text = $state(given.url || given.title);
  let selection = $state(given.selection);
  let handed = $state<HandedPage | undefined>();
  /** What is here of the page already, with what was kept of what is selected on it. */
  let found = $state.raw<FromPage | undefined>();
  let hint = $state(given.trouble);
  let going = $state<Going>(nowhere());
  const edit = editing(() => data.kept!);

  // svelte-ignore state_referenced_locally
  if (data.preset) {
    going.presetId = data.preset.id;
    if (data.preset.projectId) going.projectId = data.preset.projectId;
    if (data.preset.sectionId) going.sectionId = data.preset.sectionId;
  }

  const typed = $derived(recognise(text));
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
      void lookHere(handed);
    };
    window.addEventListener('message', hear);
    // The page this window was opened from may be any; it is told only that the window is ready.
    if (given.handed) (window.opener as Window | null)?.postMessage('retexa:ready', '*');
    return () => window.removeEventListener('message', hear);
  });

  /** A page that is here keeps what is selected on it at once. */
  async function lookHere({ address, selection: words }: HandedPage) {
    try {
      if (words.trim()) {
        const made = await call<{ found: FromPage | null }>('POST', '/api/captures/passage', {
          address,
          selection: words.slice(0, 50_000),
        });
        found = made.found ?? undefined;
        if (found?.passage) selection = '';
        return;
      }
      const query = `address=${encodeURIComponent(address)}`;
      const { here } = await call<{ here: FromPage['here'] | null }>('GET', `/api/captures/passage?${query}`);
      found = here ? { here, passage: undefined, already: false } : undefined;
    } catch (error) {
      trouble(error);
    }
  }

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
      else if (
        isUnreached(error) &&
        (await waitFor({
          kind: 'capture',
          body: { text, ...where, ...(selection.trim() ? { selection } : {}) },
        }))
      )
        hint = WAITS;
      else trouble(error);
    }
  }

  async function another() {
    [text, selection, handed, found] = ['', '', undefined, undefined];
    going.note = '';
    const url = new URL(page.url);
    for (const name of [...url.searchParams.keys()]) if (name !== 'preset') url.searchParams.delete(name);
    await goto(url, { replaceState: true, invalidateAll: true });
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
      {#if isGoing(data.job)}
        <p class="serif got">{givenTo(data.job)}</p>
        <JobGoing job={data.job} />
        <p class="small-label">You can close this window; the capture goes on.</p>
      {:else if data.job.state === 'failed'}
        <p class="pencil-red" role="alert">{data.job.error?.message}</p>
        <div class="flex flex-wrap items-center gap-2">
          <Button look="main" onclick={() => actOn(data.job!.id, 'retry')}>Try again</Button>
          <Button onclick={another}>Back</Button>
        </div>
      {:else if data.job.state === 'done'}
        {#snippet ways(still: boolean)}
          {#if still}<Button look="quiet" onclick={another}>Leave it</Button>
          {:else}
            <Button onclick={another}>Another</Button>
            <Button look="quiet" onclick={() => window.close()}>Close</Button>
          {/if}
        {/snippet}
        {#snippet below()}
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
        {/snippet}
        <CaptureOutcome job={data.job} target="retexa" {ways} {below} onundone={another} />
      {:else}
        <p class="small-label">Put away.</p>
        <Button onclick={another}>Another</Button>
      {/if}
    </section>
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
    {#if found && handed}<PageHere {found} selected={handed.selection.trim() !== ''} />{/if}
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
        <Button look="main" type="submit" disabled={!text.trim()}
          >{found ? 'Capture it again' : 'Capture'}</Button
        >
      </form>
    {:else if mode === 'thought'}
      <NoteEntry projectId={going.projectId ?? data.projectId ?? null} sourceId={null} label="A thought" />
    {:else}
      {#snippet where()}<IntoPanel
          bind:going
          projectId={data.projectId}
          withPreset={!data.preset}
        />{/snippet}
      <HandForm
        type={data.preset?.type ?? 'book'}
        into={() => intoOf(going)}
        address={typed.kind === 'address' ? typed.address : undefined}
        onlookup={(isbn) => {
          text = isbn;
          void capture();
        }}
        {where}
      />
    {/if}
  {/if}
</div>

{#if data.kept && edit.clash}
  <Clash {edit} clash={edit.clash} record={data.kept.record} citekey={data.kept.citekey} />
{/if}

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
  .window > :global(form),
  .outcome,
  .window > :global(.entry) {
    display: grid;
    gap: 7px;
    padding: 12px 16px 20px;
  }
  .window > :global(form > label) {
    color: var(--ink-2);
    font-size: 13px;
  }
  .got {
    font-size: 17px;
    font-weight: 600;
    line-height: 1.35;
  }
</style>
