<script lang="ts">
  import { asContent, contentOf, plainOf, type NoteContent } from '$lib/core/notes';
  import type { TagTint } from '$lib/core/source';
  import { spokenText } from '$lib/core/text';
  import { Button } from '../kit';
  import { people } from '../people/others.svelte';
  import WhoSees from '../people/WhoSees.svelte';
  import { hear } from '../capture/hearing';
  import { isUnreached, WAITS, waitFor } from '../capture/sending.svelte';
  import NoteColour from './NoteColour.svelte';
  import NoteField from './NoteField.svelte';
  import { onDestroy, untrack } from 'svelte';
  import { MicrophoneOutline } from 'flowbite-svelte-icons';
  import { ApiError, call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { done, trouble } from '../frame/toasts.svelte';

  interface Props {
    projectId: string | null;
    sourceId: string | null;
    label?: string;
    onkept?: () => void;
    /** Takes the focus when it opens. */
    autofocus?: boolean;
  }
  let { projectId, sourceId, label = 'A thought', onkept, autofocus = false }: Props = $props();
  const draft = $derived(`note ${sourceId ?? projectId ?? ''}`);
  const EMPTY: NoteContent = [];
  let content = $state.raw<NoteContent>(EMPTY);
  const body = $derived(plainOf(content));
  let tint = $state<TagTint | null>(null);
  let visibility = $state<'private' | 'library'>('library');
  let shownTo = $state<string[]>([]);
  let begun = false;
  // What was typed here before and not kept is there again.
  $effect(() => {
    const found = drafts.find<NoteContent | string>(draft);
    untrack(() => {
      if (!begun && found && !body) content = typeof found === 'string' ? contentOf(found) : found;
      begun = true;
    });
  });
  $effect(() => {
    if (!begun) return;
    if (body.trim()) drafts.keep(draft, content);
    else drafts.drop(draft);
  });
  let recorder = $state<MediaRecorder | undefined>();
  let seconds = $state(0);
  /** What was recorded and is not kept yet: its words can be corrected first. */
  let recorded = $state.raw<Blob | undefined>();
  let busy = $state(false);
  let timer: ReturnType<typeof setInterval> | undefined;
  const id = $props.id();

  onDestroy(() => {
    clearInterval(timer);
    recorder?.stream.getTracks().forEach((t) => t.stop());
  });

  async function kept(words: string) {
    [content, tint] = [EMPTY, null];
    done(words);
    onkept?.();
    await renewed();
  }

  /** What is said of the note, as it is sent. */
  const said = () => {
    const written = asContent(content);
    return { body, ...(written ? { content: written } : {}), tint, projectId, sourceId, visibility, shownTo };
  };

  async function keep(event?: Event) {
    event?.preventDefault();
    if (!body.trim() || busy) return;
    if (recorded) return keepRecorded();
    busy = true;
    const note = said();
    try {
      await call('POST', '/api/notes', note);
      await kept('Kept.');
    } catch (error) {
      if (isUnreached(error) && (await waitFor({ kind: 'note', body: note }))) {
        [content, tint] = [EMPTY, null];
        done(WAITS);
      } else trouble(error);
    }
    busy = false;
  }

  /** Keeps the recording with the words beside it. */
  async function keepRecorded() {
    if (!recorded) return;
    const of = encodeURIComponent(JSON.stringify(said()));
    busy = true;
    try {
      await sendSound(`/api/notes/spoken?seconds=${seconds}&said=${of}`, recorded);
      recorded = undefined;
      await kept('The recording is kept.');
    } catch (error) {
      trouble(error);
    }
    busy = false;
  }

  async function sendSound<T>(address: string, sound: Blob): Promise<T> {
    const unreached = new ApiError(
      0,
      'The server does not answer; the recording could not be kept. It is still here: try again in a moment.',
    );
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': sound.type },
      body: sound,
    }).catch(() => {
      throw unreached;
    });
    const answer = (await response.json()) as T & { message: string };
    if (!response.ok) throw new ApiError(response.status, answer.message);
    return answer;
  }

  /** Words put behind what is written already. */
  const written = (before: string, words: string) => [before.trim(), words.trim()].filter(Boolean).join(' ');

  async function speak() {
    let stream: MediaStream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: true });
    } catch {
      return trouble(
        new ApiError(
          0,
          'The microphone is not allowed or not there. Allow it in the browser’s site settings, or type the thought.',
        ),
      );
    }
    const parts: Blob[] = [];
    const made = new MediaRecorder(stream);
    const before = body;
    const hearing = hear((words) => (content = contentOf(written(before, words))));
    made.ondataavailable = (e) => parts.push(e.data);
    made.onstop = async () => {
      clearInterval(timer);
      stream.getTracks().forEach((t) => t.stop());
      recorder = undefined;
      const sound = new Blob(parts, { type: (made.mimeType || 'audio/webm').split(';')[0]! });
      recorded = sound;
      let words = spokenText(await hearing.end());
      if (!words) {
        busy = true;
        const answer = await sendSound<{ text: string | null }>('/api/notes/words', sound).catch(
          (error: unknown) => {
            trouble(error);
            return { text: null };
          },
        );
        busy = false;
        words = answer.text ?? '';
      }
      // Where nothing writes it out there is nothing to correct.
      if (!words) return keepRecorded();
      content = contentOf(written(before, words));
      requestAnimationFrame(() => document.getElementById(id)?.focus());
    };
    seconds = 0;
    timer = setInterval(() => seconds++, 1_000);
    made.start();
    recorder = made;
  }
</script>

<form onsubmit={keep} class="entry">
  <span class="small-label" aria-hidden="true">{label}</span>
  <NoteField
    {id}
    {label}
    {autofocus}
    {content}
    placeholder="In your own words; @ names a source or a note"
    onwrite={(now) => (content = now)}
    onkeep={() => keep()}
  />
  <div class="line">
    <Button small look="main" type="submit" disabled={!body.trim() || busy}
      >{recorded ? 'Keep with the sound' : 'Keep'}</Button
    >
    {#if recorder}
      <Button small onclick={() => recorder?.stop()}>Stop</Button>
      <span class="pencil-red" role="status">Recording, {seconds} s</span>
    {:else if recorded}
      <Button small look="quiet" onclick={() => (recorded = undefined)}>Leave the sound out</Button>
      <span class="small-label" role="status"
        >{busy ? 'Writing it out…' : 'Written out from the recording: correct it before it is kept'}</span
      >
    {:else}
      <Button small onclick={speak}><MicrophoneOutline size="xs" /> Speak it</Button>
    {/if}
    <NoteColour bind:tint />
    {#if people.several}<WhoSees bind:visibility bind:shownTo />{/if}
  </div>
</form>

<style>
  .entry {
    display: grid;
    gap: 6px;
    max-width: 820px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
  }
</style>
