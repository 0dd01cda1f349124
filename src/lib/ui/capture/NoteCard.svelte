<script lang="ts">
  import { timeLabel } from '../frame/dates';
  import { Button, Textarea } from '../kit';
  import { page } from '$app/state';
  import { may } from '$lib/core/members';
  import type { NoteItem } from '$lib/server/notes';
  import { nameOf, onlyFor, people } from '../people/others.svelte';
  import PersonMark from '../people/PersonMark.svelte';
  import WhoSees from '../people/WhoSees.svelte';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';

  interface Props {
    note: NoteItem;
    /** Names the project and source the note is on. */
    where?: boolean;
  }
  let { note, where = true }: Props = $props();
  let editing = $state(false);
  let body = $state('');
  let visibility = $state<'private' | 'library'>('library');
  let shownTo = $state<string[]>([]);
  const mine = $derived(note.ownerId === people.self);
  const changes = $derived(mine ? may(page.data.role, 'annotate') : may(page.data.role, 'edit'));
  const draft = $derived(`note text ${note.id}`);
  $effect(() => {
    if (editing && body !== note.body) drafts.keep(draft, body);
  });
  function edit() {
    body = drafts.find<string>(draft) ?? note.body;
    [visibility, shownTo] = [note.visibility, note.shownTo];
    editing = true;
  }
  function leave() {
    drafts.drop(draft);
    editing = false;
  }

  async function save() {
    editing = false;
    drafts.drop(draft);
    const seen = { visibility, shownTo };
    if (body === note.body && onlyFor({ ...note, ...seen }) === onlyFor(note)) return;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/notes/${note.id}`, {
        base: note.revision,
        change: { body, ...(mine ? seen : {}) },
      }),
    );
    if (made) done('Saved.', [made.revisionId]);
    await renewed();
  }

  async function bin() {
    const made = await attempt(() =>
      call<{ revisionId?: string }>('POST', `/api/notes/${note.id}/bin`, { binned: true }),
    );
    if (made) done('The note is in the bin.', [made.revisionId]);
    await renewed();
  }
</script>

<article data-note={note.id}>
  {#if editing}
    <Textarea
      rows="4"
      aria-label="Note"
      bind:value={body}
      autofocus
      onkeydown={(e) => {
        if (e.key === 'Escape') leave();
        else if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void save();
      }}
    ></Textarea>
    <div class="foot">
      <Button small look="main" onclick={save}>Save</Button><Button small look="quiet" onclick={leave}
        >Leave it</Button
      >
      {#if mine && people.several}<WhoSees bind:visibility bind:shownTo />{/if}
    </div>
  {:else}
    {#if note.body}<p class="body">{note.body}</p>{/if}
    {#if note.audio}
      <audio
        controls
        preload="none"
        src="/api/notes/{note.id}/audio"
        aria-label="Recording{note.audio.seconds ? `, ${note.audio.seconds} seconds` : ''}"
      ></audio>
    {/if}
    <div class="foot">
      {#if people.several}<PersonMark id={note.ownerId} name={nameOf(note.ownerId)} self={mine} />{/if}
      <span class="small-label"
        >{timeLabel(note.added)}{onlyFor(note) ? ` · ${onlyFor(note)}` : ''}{where && note.projectName
          ? ` · ${note.projectName}`
          : ''}</span
      >
      {#if note.sourceLabel && where}<a class="link" href="/sources/{note.sourceId}">{note.sourceLabel}</a
        >{/if}
      <span class="flex-1"></span>
      {#if changes}<Button small look="quiet" onclick={edit}>{note.body ? 'Edit' : 'Write it down'}</Button>
        <Button small look="quiet" onclick={bin}>Put in the bin</Button>{/if}
    </div>
  {/if}
</article>

<style>
  article {
    display: grid;
    gap: 5px;
    max-width: 820px;
  }
  .body {
    font-size: 15px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
  }
  audio {
    width: min(100%, 420px);
    height: 36px;
  }
</style>
