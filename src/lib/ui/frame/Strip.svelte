<script lang="ts">
  import { MoonOutline, SunOutline } from 'flowbite-svelte-icons';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { LibraryOf } from '$lib/server/libraries';
  import type { Project } from '$lib/server/projects';
  import CaptureField from '../capture/CaptureField.svelte';
  import { Button, Key, Search, allows } from '../kit';
  import PersonMenu from '../people/PersonMenu.svelte';
  import { keyFor } from './actions.svelte';
  import Mark from './Mark.svelte';
  import ProjectMenu from './ProjectMenu.svelte';

  interface Props {
    data: {
      projects: Project[];
      projectId: string | undefined;
      library: string;
      libraryId: string;
      libraries: LibraryOf[];
      person: { name: string } | undefined;
      keeps: boolean;
      look: { name: string };
      languages: { id: string; label: string }[];
    };
    dark: boolean;
    onlight: () => void;
    onkeys: () => void;
  }
  /** The strip at the top of every view: the project, the field that captures, the search. */
  let { data, dark, onlight, onkeys }: Props = $props();
  let capture: CaptureField | undefined = $state();
  let search: HTMLInputElement | undefined = $state();

  export const toCapture = () => capture?.focus();
  export const toSearch = () => search?.focus();

  function find(event: Event) {
    event.preventDefault();
    const words = search?.value.trim();
    if (words) void goto(`/search?q=${encodeURIComponent(words)}`);
  }
</script>

<header class="strip">
  <a class="brand" href="/" aria-label="Retexa, Desk"><Mark /> <span>Retexa</span></a>
  <div class="project">
    <ProjectMenu
      projects={data.projects}
      projectId={data.projectId}
      library={data.library}
      others={data.libraries.filter(({ id }) => id !== data.libraryId)}
      styleName={data.look.name}
      languages={data.languages}
    />
  </div>
  <div class="middle">
    {#if allows('edit')}<CaptureField bind:this={capture} projectId={data.projectId} />{/if}
  </div>
  <form class="search" onsubmit={find} role="search" aria-label="Search">
    <Search
      look="bare"
      class="w-full"
      bind:element={search}
      placeholder="Search everything"
      aria-label="Search everything"
      value={page.url.pathname === '/search' ? page.url.searchParams.get('q') : ''}
    />
    {#if keyFor('search')}<span class="hint"><Key small keys={keyFor('search')!} /></span>{/if}
  </form>
  <Button
    look="strip"
    onclick={onlight}
    aria-label={dark ? 'Light colours' : 'Dark colours'}
    title={dark ? 'Light colours' : 'Dark colours'}
  >
    {#if dark}<SunOutline size="sm" />{:else}<MoonOutline size="sm" />{/if}
  </Button>
  <Button
    look="strip"
    onclick={onkeys}
    aria-label="Keys"
    title="Keys ({keyFor('keys') ?? 'off'}); every command: Ctrl+K">?</Button
  >
  <PersonMenu person={data.person} library={data.library} keeps={data.keeps} />
</header>

<style>
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
    padding-right: 30px !important;
    border: 1px solid #4a6b79;
    border-radius: 6px;
    background: transparent;
    color: #fff;
    font-size: 13.5px;
  }
  .search :global(input::placeholder),
  .search :global(svg) {
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
  @media (max-width: 760px) {
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
    .search :global(input) {
      padding-right: 4px !important;
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
