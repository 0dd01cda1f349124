<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { MoonOutline, SunOutline } from 'flowbite-svelte-icons';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import ByHandDialog from '$lib/ui/capture/ByHandDialog.svelte';
  import CaptureField from '$lib/ui/capture/CaptureField.svelte';
  import CitationDialog from '$lib/ui/lists/CitationDialog.svelte';
  import KeysHelp from '$lib/ui/frame/KeysHelp.svelte';
  import Mark from '$lib/ui/frame/Mark.svelte';
  import Path from '$lib/ui/frame/Path.svelte';
  import ProjectMenu from '$lib/ui/frame/ProjectMenu.svelte';
  import Toasts from '$lib/ui/frame/Toasts.svelte';
  import Tray from '$lib/ui/capture/Tray.svelte';
  import { openByHand } from '$lib/ui/capture/byhand.svelte';
  import { isTyping } from '$lib/ui/frame/client';
  import { follow } from '$lib/ui/frame/live.svelte';

  let { data, children } = $props();
  let capture: CaptureField | undefined = $state();
  let search: HTMLInputElement | undefined = $state();
  let keys = $state(false);
  let dark = $state(false);
  let going = false;

  onMount(() => {
    dark = document.documentElement.classList.contains('dark');
    document.documentElement.dataset.ready = 'true';
    return follow();
  });

  function turn() {
    dark = !dark;
    document.documentElement.classList.toggle('dark', dark);
    localStorage.setItem('retexa-light', dark ? 'dark' : 'light');
  }

  const PLACES: Record<string, string> = {
    i: '/intake',
    s: '/sources',
    p: '/passages',
    r: '/references',
    d: '/duplicates',
    l: '/leads',
    o: '/notes',
    h: '/',
  };

  function onkey(event: KeyboardEvent) {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (going) {
      going = false;
      const place = PLACES[event.key];
      if (place) {
        event.preventDefault();
        event.stopImmediatePropagation();
        void goto(place);
      }
      return;
    }
    const acts: Record<string, () => void> = {
      c: () => capture?.focus(),
      '/': () => search?.focus(),
      n: () => openByHand(),
      '?': () => (keys = true),
      g: () => (going = true),
    };
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }

  function find(event: Event) {
    event.preventDefault();
    const words = search?.value.trim();
    if (words) void goto(`/search?q=${encodeURIComponent(words)}`);
  }
</script>

<svelte:window onkeydowncapture={onkey} />

{#if page.url.pathname === '/capture'}
  {@render children()}
{:else}
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
        <input
          bind:this={search}
          type="search"
          placeholder="Search everything"
          aria-label="Search everything"
          value={page.url.pathname === '/search' ? page.url.searchParams.get('q') : ''}
        />
        <kbd>/</kbd>
      </form>
      <button
        class="light"
        onclick={turn}
        aria-label={dark ? 'Light colours' : 'Dark colours'}
        title={dark ? 'Light colours' : 'Dark colours'}
      >
        {#if dark}<SunOutline size="sm" />{:else}<MoonOutline size="sm" />{/if}
      </button>
      <button class="light" onclick={() => (keys = true)} aria-label="Keys" title="Keys (?)">?</button>
    </header>
    <Path counts={data.counts} />
    <main>{@render children()}</main>
  </div>
  <Tray jobs={data.jobs} />
{/if}
<Toasts />
<ByHandDialog />
<CitationDialog style={data.look.name} />
<KeysHelp bind:open={keys} />

<style>
  .shell {
    display: grid;
    grid-template: 52px minmax(0, 1fr) / 176px minmax(0, 1fr);
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
  .search input {
    width: 100%;
    height: 32px;
    padding: 0 30px 0 11px;
    border: 1px solid #4a6b79;
    border-radius: 6px;
    background: transparent;
    color: #fff;
    font-size: 13.5px;
  }
  .search input::placeholder {
    color: #b9cbd2;
  }
  .search input:focus {
    box-shadow: 0 0 0 2px #f3d36b;
    outline: none;
  }
  .search kbd {
    position: absolute;
    top: 7px;
    right: 8px;
    padding: 0 6px;
    border: 1px solid #4a6b79;
    border-radius: 4px;
    color: #b9cbd2;
    font-size: 11px;
  }
  .light {
    display: grid;
    place-items: center;
    width: 30px;
    height: 30px;
    flex: none;
    border-radius: 6px;
    color: #d5e2e6;
    font-weight: 700;
    cursor: pointer;
  }
  .light:hover {
    background: #1a4253;
  }
  .strip :focus-visible {
    outline-color: #f3d36b;
  }
  main {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    background: var(--page);
    overflow: auto;
  }
  @media (max-width: 760px) {
    .shell {
      grid-template: auto 40px minmax(0, 1fr) / minmax(0, 1fr);
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
    .search kbd {
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
  }
</style>
