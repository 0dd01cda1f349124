<script lang="ts">
  import { timeLabel } from '../frame/dates';
  import { asContent, contentOf, plainOf, type NoteContent } from '$lib/core/notes';
  import type { TagTint } from '$lib/core/source';
  import { Button } from '../kit';
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
  import NoteColour from './NoteColour.svelte';
  import NoteField from './NoteField.svelte';
  import NotePaper from './NotePaper.svelte';
  import NoteText from './NoteText.svelte';

  interface Props {
    note: NoteItem;
    /** Names the project and source the note is on. */
    where?: boolean;
  }
  let { note, where = true }: Props = $props();
  let editing = $state(false);
  let content = $state.raw<NoteContent>([]);
  let tint = $state<TagTint | null>(null);
  let visibility = $state<'private' | 'library'>('library');
  let shownTo = $state<string[]>([]);
  const mine = $derived(note.ownerId === people.self);
  const changes = $derived(mine ? may(page.data.role, 'annotate') : may(page.data.role, 'edit'));
  const draft = $derived(`note text ${note.id}`);
  /** How it is written, before anything is typed. */
  const written = $derived(note.content ?? contentOf(note.body));
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  function write(now: NoteContent) {
    content = now;
    if (same(now, written)) drafts.drop(draft);
    else drafts.keep(draft, now);
  }
  function edit() {
    const typed = drafts.find<NoteContent | string>(draft);
    content = typeof typed === 'string' ? contentOf(typed) : (typed ?? written);
    [visibility, shownTo, tint] = [note.visibility, note.shownTo, note.tint];
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
    const kept = asContent(content);
    const words = kept ? { content: kept } : { body: plainOf(content) };
    const unchanged = kept ? same(kept, note.content) : !note.content && words.body === note.body;
    if (unchanged && tint === note.tint && onlyFor({ ...note, ...seen }) === onlyFor(note)) return;
    const made = await attempt(() =>
      call<{ revisionId?: string }>('PATCH', `/api/notes/${note.id}`, {
        base: note.revision,
        change: { ...(unchanged ? {} : words), tint, ...(mine ? seen : {}) },
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

<article data-note={note.id} id="note-{note.id}">
  {#if editing}
    <NoteField
      id="write-{note.id}"
      label="Note"
      autofocus
      {content}
      onwrite={write}
      onkeep={save}
      onleave={leave}
    />
    <div class="foot">
      <Button small look="main" onclick={save}>Save</Button><Button small look="quiet" onclick={leave}
        >Leave it</Button
      >
      <NoteColour bind:tint />
      {#if mine && people.several}<WhoSees bind:visibility bind:shownTo />{/if}
    </div>
  {:else}
    {#if note.body}<NoteText {note} />{/if}
    {#if note.audio}
      <audio
        controls
        preload="none"
        src="/api/notes/{note.id}/audio"
        aria-label="Recording{note.audio.seconds ? `, ${note.audio.seconds} seconds` : ''}"
      ></audio>
    {/if}
    {#if note.namedBy?.length}
      <p class="small-label">
        Named in
        {#each note.namedBy as one, i (one.id)}{i ? ', ' : ''}<a
            class="link"
            href="/notes?in=library#note-{one.id}">{one.called}</a
          >{/each}
      </p>
    {/if}
    <div class="foot">
      {#if people.several}<PersonMark id={note.ownerId} name={nameOf(note.ownerId)} self={mine} />{/if}
      {#if note.tint}<NotePaper tint={note.tint} />{/if}
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
  article:target {
    outline: 2px solid var(--thread);
    outline-offset: 8px;
    border-radius: 3px;
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
