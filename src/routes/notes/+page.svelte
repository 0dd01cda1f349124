<script lang="ts">
  import { allows, Button, Empty, PageHead } from '$lib/ui/kit';
  import { page } from '$app/state';
  import { TAG_TINTS } from '$lib/core/source';
  import NoteCard from '$lib/ui/notes/NoteCard.svelte';
  import NoteEntry from '$lib/ui/notes/NoteEntry.svelte';
  import { narrowedBy } from '$lib/ui/frame/narrowing';
  import FilterSelect from '$lib/ui/frame/FilterSelect.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Notes · Retexa</title></svelte:head>

<PageHead>
  <h1>Notes</h1>
  <span class="sub"
    >{data.notes.length}
    {data.projectId && narrowedBy('in') !== 'library' ? 'in this project' : 'in the library'}, latest first</span
  >
  <span class="flex-1"></span>
  <FindField what="notes" />
  <FilterSelect
    name="tint"
    label="Colour"
    any="Any colour"
    options={TAG_TINTS.map((tint) => ({ value: tint, text: tint }))}
  />
  {#if [...page.url.searchParams.keys()].length}<Button small look="quiet" href="/notes">Show all</Button
    >{/if}
</PageHead>

{#if allows('annotate')}
  <div class="entry"><NoteEntry projectId={data.projectId ?? null} sourceId={null} /></div>
{/if}

{#if data.notes.length === 0}
  <Empty>
    <h2>No notes yet</h2>
    <p>
      A thought can be put down above, typed or spoken, or straight into the capture field. On the move, the
      capture window takes it with no page open.
    </p>
  </Empty>
{:else}
  <ul class="list">
    {#each data.notes as note (note.id)}<li><NoteCard {note} where={!data.projectId} /></li>{/each}
  </ul>
{/if}

<style>
  .entry {
    padding: 14px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  li {
    padding: 12px 26px;
    border-bottom: 1px solid var(--rule);
  }
</style>
