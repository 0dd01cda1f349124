<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { MoonOutline, SunOutline } from 'flowbite-svelte-icons';
  import { afterNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import ByHandDialog from '$lib/ui/capture/ByHandDialog.svelte';
  import { byHand, openByHand } from '$lib/ui/capture/byhand.svelte';
  import CaptureField from '$lib/ui/capture/CaptureField.svelte';
  import Tray from '$lib/ui/capture/Tray.svelte';
  import { offer, keyFor, onKey, readChoices } from '$lib/ui/frame/actions.svelte';
  import Commands from '$lib/ui/frame/Commands.svelte';
  import { ASIDE, STEPS } from '$lib/ui/frame/keys';
  import KeysHelp from '$lib/ui/frame/KeysHelp.svelte';
  import { drafts } from '$lib/ui/frame/drafts';
  import { follow, server } from '$lib/ui/frame/live.svelte';
  import Mark from '$lib/ui/frame/Mark.svelte';
  import Path from '$lib/ui/frame/Path.svelte';
  import ProjectMenu from '$lib/ui/frame/ProjectMenu.svelte';
  import Toasts from '$lib/ui/frame/Toasts.svelte';
  import { forgetDone, redoLast, undoLast } from '$lib/ui/frame/toasts.svelte';
  import { Button, Input, Key } from '$lib/ui/kit';
  import Kit from '$lib/ui/kit/Kit.svelte';
  import CitationDialog from '$lib/ui/lists/CitationDialog.svelte';

  let { data, children } = $props();
  let capture: CaptureField | undefined = $state();
  let search: HTMLInputElement | undefined = $state();
  let keys = $state(false);
  let commands = $state(false);
  let dark = $state(false);

  onMount(() => {
    dark = document.documentElement.classList.contains('dark');
    readChoices();
    drafts.sweep();
    document.documentElement.dataset.ready = 'true';
    return follow();
  });
  afterNavigate(({ from, to }) => {
    if (from?.url.pathname !== to?.url.pathname) forgetDone();
  });

  function turn() {
    dark = !dark;
    document.documentElement.classList.toggle('dark', dark);
    localStorage.setItem('retexa-light', dark ? 'dark' : 'light');
  }

  const goings = Object.fromEntries(
    [...STEPS, ...ASIDE].map(({ id, href }) => [`go ${id}`, () => goto(href)]),
  );
  offer(() => ({
    capture: () => capture?.focus(),
    search: () => search?.focus(),
    'by hand': () => openByHand(),
    commands: () => (commands = true),
    undo: undoLast(),
    redo: redoLast(),
    light: turn,
    keys: () => (keys = true),
    ...goings,
  }));

  function find(event: Event) {
    event.preventDefault();
    const words = search?.value.trim();
    if (words) void goto(`/search?q=${encodeURIComponent(words)}`);
  }
</script>

<svelte:window onkeydown={onKey} />

<Kit>
  {#if page.url.pathname === '/capture'}
    {@render children()}
    <Toasts />
  {:else}
    <a class="skip" href="#main">To the view</a>
    <div class="shell">
      <header class="strip">
        <a class="brand" href="/" aria-label="Retexa, Desk"><Mark /> <span>Retexa</span></a>
        <div class="project">
          <ProjectMenu
            projects={data.projects}
            projectId={data.projectId}
            library={data.library}
            styleName={data.look.name}
            languages={data.languages}
          />
        </div>
        <div class="middle"><CaptureField bind:this={capture} projectId={data.projectId} /></div>
        <form class="search" onsubmit={find} role="search" aria-label="Search">
          <Input
            look="bare"
            bind:element={search}
            type="search"
            placeholder="Search everything"
            aria-label="Search everything"
            value={page.url.pathname === '/search' ? page.url.searchParams.get('q') : ''}
          />
          {#if keyFor('search')}<span class="hint"><Key small keys={keyFor('search')!} /></span>{/if}
        </form>
        <Button
          look="strip"
          onclick={turn}
          aria-label={dark ? 'Light colours' : 'Dark colours'}
          title={dark ? 'Light colours' : 'Dark colours'}
        >
          {#if dark}<SunOutline size="sm" />{:else}<MoonOutline size="sm" />{/if}
        </Button>
        <Button
          look="strip"
          onclick={() => (keys = true)}
          aria-label="Keys"
          title="Keys ({keyFor('keys') ?? 'off'}); every command: Ctrl+K">?</Button
        >
      </header>
      <Path counts={data.counts} />
      <main id="main" tabindex="-1">{@render children()}</main>
      <div class="band">
        {#if !server.reached}
          <p class="away" role="alert">
            The server is not reached. What you type stays here, and is sent when it is back.
          </p>
        {/if}
        <Tray jobs={data.jobs} />
        <Toasts />
      </div>
    </div>
  {/if}
  {#if byHand.open}<ByHandDialog />{/if}
  <CitationDialog style={data.look.name} />
  <KeysHelp bind:open={keys} />
  <Commands bind:open={commands} />
</Kit>

<style>
  .shell {
    display: grid;
    grid-template: 52px minmax(0, 1fr) auto / 176px minmax(0, 1fr);
    height: 100dvh;
  }
  .strip {
    display: flex;
    grid-column: 1 / -1;
    align-items: center;
    gap: 12px;
    padding: 0 14px;
    background: #123644;
    color: #fff;
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 10px;
    width: 146px;
    flex: none;
    font-size: 16px;
    font-weight: 700;
  }
  .project {
    flex: 0 1 210px;
    min-width: 120px;
  }
  .middle {
    display: flex;
    flex: 1;
    justify-content: center;
  }
  .search {
    position: relative;
    flex: 0 1 190px;
  }
  .search :global(input) {
    width: 100%;
    height: 32px;
    padding: 0 30px 0 11px;
    border: 1px solid #4a6b79;
    border-radius: 6px;
    background: transparent;
    color: #fff;
    font-size: 13.5px;
  }
  .search :global(input::placeholder) {
    color: #b9cbd2;
  }
  .search :global(input:focus) {
    box-shadow: 0 0 0 2px #f3d36b;
    outline: none;
  }
  .search .hint {
    position: absolute;
    top: 6px;
    right: 8px;
    color: #b9cbd2;
  }
  .strip :global(:focus-visible) {
    outline-color: #f3d36b;
  }
  main {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    outline: none;
    background: var(--page);
    overflow: auto;
  }
  .skip {
    position: absolute;
    z-index: 60;
    top: -60px;
    left: 14px;
    padding: 8px 14px;
    border-radius: 6px;
    background: var(--page);
    color: var(--thread);
    font-weight: 650;
  }
  .skip:focus {
    top: 8px;
  }
  .away {
    flex: 1 0 100%;
    padding: 7px 26px;
    background: var(--red-soft);
    color: var(--red-pencil);
    font-weight: 600;
  }
  .band {
    display: flex;
    flex-wrap: wrap;
    grid-column: 2;
    align-items: flex-end;
    min-width: 0;
    background: var(--side);
  }
  @media print {
    .strip,
    .band,
    .skip,
    .shell > :global(nav) {
      display: none;
    }
    .shell {
      display: block;
      height: auto;
    }
    main {
      display: block;
      overflow: visible;
    }
  }
  @media (max-width: 760px) {
    .shell {
      grid-template: auto 40px minmax(0, 1fr) auto / minmax(0, 1fr);
    }
    .strip {
      flex-wrap: wrap;
      gap: 8px;
      padding: 8px 10px;
    }
    .brand {
      width: auto;
    }
    .brand span,
    .search .hint {
      display: none;
    }
    .project,
    .search {
      flex: 1;
    }
    .middle {
      flex: 1 0 100%;
      order: 5;
    }
    .band {
      grid-column: 1;
    }
  }
</style>
