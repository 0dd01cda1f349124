<script lang="ts">
  import { Button, FileButton, Input } from '../kit';
  import { goto } from '$app/navigation';
  import { recogniseLines } from '$lib/core/source';
  import { looksLikeReference, splitReferences } from '$lib/core/leads';
  import { DotsHorizontalOutline } from 'flowbite-svelte-icons';
  import { openByHand } from './byhand.svelte';
  import { ApiError, call } from '../frame/client';
  import { isUnreached, WAITS, waitFor } from './sending.svelte';
  import IntoPanel from './IntoPanel.svelte';
  import { chosen, going, intoOf } from './into.svelte';
  import { done, trouble } from '../frame/toasts.svelte';

  let { projectId }: { projectId?: string | undefined } = $props();
  let text = $state('');
  let over = $state(false);
  let into = $state(false);
  interface Hint {
    text: string;
    acts: { label: string; act: () => unknown }[];
  }
  let hint = $state<Hint | undefined>();
  let input: HTMLInputElement | undefined = $state();
  let form: HTMLFormElement | undefined = $state();

  /** Puts the cursor into the field. */
  export function focus(): void {
    input?.focus();
    input?.select();
  }

  const project = () => (going.projectId === undefined ? projectId : going.projectId || undefined);

  /** Where it goes when it is sent later: to the project that is chosen now. */
  const waitingInto = () => ({ ...(project() ? { projectId: project() } : {}), ...intoOf(going) });

  async function importText(body: string) {
    try {
      await call('POST', `/api/import?name=${encodeURIComponent('pasted text')}`, new Blob([body]));
      clear();
      await goto('/import');
    } catch (error) {
      trouble(error);
    }
  }

  function clear() {
    text = '';
    hint = undefined;
  }

  async function keepAsNote(body: string) {
    try {
      await call('POST', '/api/notes', { body, projectId: project() ?? null, sourceId: null });
      clear();
      done('The thought is kept under Notes.');
    } catch (error) {
      const note = { body, projectId: project() ?? null, sourceId: null };
      if (isUnreached(error) && (await waitFor({ kind: 'note', body: note }))) {
        clear();
        done(WAITS);
      } else trouble(error);
    }
  }

  async function keepAsLeads(body: string) {
    try {
      const { leads } = await call<{ leads: unknown[] }>('POST', '/api/leads', {
        text: body,
        projectId: project() ?? null,
        metIn: null,
      });
      clear();
      done(leads.length === 1 ? 'Kept as a lead.' : `${leads.length} kept as leads.`);
    } catch (error) {
      trouble(error);
    }
  }

  function hintFor(given: string, error: ApiError): Hint {
    const byHand = {
      label: 'Start by hand',
      act: () => {
        openByHand({ title: given.slice(0, 300) });
        clear();
      },
    };
    const acts: Record<string, Hint['acts']> = {
      'is-references': [{ label: 'Import', act: () => importText(given) }],
      'is-reference': [
        {
          label: splitReferences(given).length > 1 ? 'Keep as leads' : 'Keep as a lead',
          act: () => keepAsLeads(given),
        },
        byHand,
      ],
      'is-text': [
        { label: 'Keep as a thought', act: () => keepAsNote(given) },
        { label: 'Keep as a lead', act: () => keepAsLeads(given) },
        byHand,
      ],
    };
    return { text: error.message, acts: acts[error.code] ?? [byHand] };
  }

  async function send(given: string) {
    hint = undefined;
    // The field is free for the next one at once; what could not be captured comes back into it.
    text = '';
    try {
      await call('POST', '/api/captures', { text: given, ...intoOf(going) });
      going.note = '';
    } catch (error) {
      if (isUnreached(error) && (await waitFor({ kind: 'capture', body: { text: given, ...waitingInto() } })))
        return done(WAITS);
      text ||= given;
      if (!(error instanceof ApiError) || !error.code.startsWith('is-')) return trouble(error);
      hint = hintFor(given, error);
    }
  }

  async function capture(event?: Event) {
    event?.preventDefault();
    const given = text.trim();
    if (given) await send(given);
  }

  async function takeFiles(files: FileList | File[]) {
    for (const file of files) {
      try {
        const where = encodeURIComponent(JSON.stringify(intoOf(going)));
        const { jobs } = await call<{ jobs: { kind: string }[] }>(
          'POST',
          `/api/captures/file?name=${encodeURIComponent(file.name)}&into=${where}`,
          file,
        );
        if (jobs[0]?.kind === 'import') await goto('/import');
      } catch (error) {
        const what = { kind: 'file' as const, name: file.name, into: waitingInto(), file };
        if (isUnreached(error) && (await waitFor(what))) done(WAITS);
        else trouble(error);
      }
    }
    going.note = '';
  }

  function dropped(event: DragEvent) {
    event.preventDefault();
    over = false;
    const files = event.dataTransfer?.files;
    const address = event.dataTransfer?.getData('text/uri-list') || event.dataTransfer?.getData('text/plain');
    if (files?.length) void takeFiles(files);
    else if (address) void send(address.trim());
  }

  /** Lines keep their meaning: addresses one a line, references, a file's text. An input would run them together. */
  function pasted(event: ClipboardEvent) {
    const files = event.clipboardData?.files;
    if (files?.length) {
      event.preventDefault();
      return void takeFiles(files);
    }
    const whole = (event.clipboardData?.getData('text/plain') ?? '').trim();
    if (!/\n/.test(whole)) return;
    const file = /^\s*(?:@\w+\s*[{(]|TY {1,2}- |\[\s*\{)/.test(whole);
    if (!file && !recogniseLines(whole) && !splitReferences(whole).some(looksLikeReference)) return;
    event.preventDefault();
    if (file) void importText(whole);
    else void send(whole);
  }
</script>

<svelte:window
  onclick={(e) => {
    if (into && form && !form.contains(e.target as Node)) into = false;
  }}
/>

<form
  bind:this={form}
  class="capture"
  class:over
  onsubmit={capture}
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={dropped}
  role="search"
  aria-label="Capture"
>
  <Input
    look="bare"
    bind:element={input}
    bind:value={text}
    onpaste={pasted}
    onkeydown={(e) => {
      if (e.key !== 'Escape') return;
      if (hint) hint = undefined;
      else if (into) into = false;
      else input?.blur();
    }}
    aria-label="What to capture"
    placeholder="Address, DOI, ISBN, a reference, a thought; or drop a file"
    autocomplete="off"
    spellcheck="false"
  />
  <Button
    look="bare"
    class={['more', chosen(going) && 'set']}
    aria-expanded={into}
    aria-label="Where captures go"
    title="Where captures go: project, section, tags, note"
    onclick={() => (into = !into)}><DotsHorizontalOutline size="sm" /></Button
  >
  <Button look="bare" type="submit" class="go">Capture</Button>
  <div class="below">
    {#if hint}
      <div class="hint" role="alert">
        <span>{hint.text}</span>
        {#each hint.acts as { label, act }, i (label)}
          <Button small look={i === 0 ? 'main' : 'plain'} onclick={act}>{label}</Button>
        {/each}
      </div>
    {/if}
    {#if into}
      <div class="panel">
        <IntoPanel bind:going={() => going, (v) => Object.assign(going, v)} {projectId} />
        <div class="foot">
          <FileButton
            small
            multiple
            label="Files to capture"
            onfiles={(files) => {
              void takeFiles(files);
              into = false;
            }}>Choose a file…</FileButton
          >
          <a class="link" href="/ways-in" onclick={() => (into = false)}>Other ways in</a>
          <span class="flex-1"></span>
          <Button small onclick={() => (into = false)}>Done</Button>
        </div>
      </div>
    {/if}
  </div>
</form>

<style>
  .capture {
    position: relative;
    display: flex;
    flex: 1;
    max-width: 560px;
    height: 34px;
    border-radius: 6px;
    background: #fff;
  }
  .over {
    box-shadow: 0 0 0 3px #f3d36b;
  }
  .capture > :global(input) {
    flex: 1;
    min-width: 0;
    padding: 0 12px;
    border: 0;
    border-radius: 6px;
    background: transparent;
    color: #16222c;
    font-size: 14px;
  }
  .capture > :global(input::placeholder) {
    color: #62717a;
  }
  .capture > :global(input:focus) {
    box-shadow: 0 0 0 2px #f3d36b;
    outline: none;
  }
  .capture :global(.more) {
    display: grid;
    place-items: center;
    width: 28px;
    margin: 4px 0;
    border-radius: 5px;
    color: #4a5963;
    cursor: pointer;
  }
  .capture :global(.more:hover) {
    background: #e0ecef;
  }
  .capture :global(.more.set) {
    background: #e0ecef;
    color: #1c4f63;
  }
  .capture :global(.go) {
    margin: 4px;
    padding: 0 13px;
    border-radius: 5px;
    background: #1c4f63;
    color: #fff;
    font-size: 13px;
    font-weight: 650;
    cursor: pointer;
  }
  .capture :global(.go:hover) {
    background: #265f74;
  }
  .below {
    position: absolute;
    z-index: 40;
    top: 40px;
    right: 0;
    left: 0;
    display: grid;
    gap: 6px;
  }
  .panel,
  .hint {
    padding: 12px 14px;
    border: 1px solid var(--edge);
    border-radius: 8px;
    background: var(--page);
    color: var(--ink);
    box-shadow: 0 8px 28px rgb(0 0 0 / 18%);
  }
  .hint {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .foot {
    display: flex;
    align-items: center;
    gap: 14px;
    padding-top: 12px;
  }
  .hint span {
    min-width: 60%;
    flex: 1;
  }
</style>
