<script lang="ts">
  import { Button, Textarea } from '../kit';
  import { onDestroy, untrack } from 'svelte';
  import { MicrophoneOutline } from 'flowbite-svelte-icons';
  import { ApiError, call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, trouble } from '../frame/toasts.svelte';

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
  let body = $state('');
  let begun = false;
  // What was typed here before and not kept is there again.
  $effect(() => {
    const found = drafts.find<string>(draft);
    untrack(() => {
      if (!begun && found && !body) body = found;
      begun = true;
    });
  });
  $effect(() => {
    if (!begun) return;
    if (body.trim()) drafts.keep(draft, body);
    else drafts.drop(draft);
  });
  let recorder = $state<MediaRecorder | undefined>();
  let seconds = $state(0);
  let busy = $state(false);
  let timer: ReturnType<typeof setInterval> | undefined;
  const id = $props.id();

  onDestroy(() => {
    clearInterval(timer);
    recorder?.stream.getTracks().forEach((t) => t.stop());
  });

  async function kept(words: string) {
    body = '';
    done(words);
    onkept?.();
    await renewed();
  }

  async function keep(event?: Event) {
    event?.preventDefault();
    if (!body.trim() || busy) return;
    busy = true;
    const made = await attempt(() => call('POST', '/api/notes', { body, projectId, sourceId }));
    busy = false;
    if (made) await kept('Kept.');
  }

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
    made.ondataavailable = (e) => parts.push(e.data);
    made.onstop = async () => {
      clearInterval(timer);
      stream.getTracks().forEach((t) => t.stop());
      recorder = undefined;
      const type = (made.mimeType || 'audio/webm').split(';')[0]!;
      const said = encodeURIComponent(JSON.stringify({ body, projectId, sourceId }));
      try {
        const response = await fetch(`/api/notes/spoken?seconds=${seconds}&said=${said}`, {
          method: 'POST',
          headers: { 'content-type': type },
          body: new Blob(parts, { type }),
        });
        if (!response.ok)
          throw new ApiError(response.status, ((await response.json()) as { message: string }).message);
        await kept('The recording is kept.');
      } catch (error) {
        trouble(
          error instanceof ApiError
            ? error
            : new ApiError(
                0,
                'The server does not answer; the recording could not be kept. Type the thought, or speak it again in a moment.',
              ),
        );
      }
    };
    seconds = 0;
    timer = setInterval(() => seconds++, 1_000);
    made.start();
    recorder = made;
  }
</script>

<form onsubmit={keep} class="entry">
  <label class="small-label" for={id}>{label}</label>
  <Textarea
    {id}
    {autofocus}
    rows="2"
    bind:value={body}
    placeholder="In your own words; it is kept as it is"
    onkeydown={(e) => {
      if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void keep(e);
    }}
  ></Textarea>
  <div class="line">
    <Button small look="main" type="submit" disabled={!body.trim() || busy}>Keep</Button>
    {#if recorder}
      <Button small onclick={() => recorder?.stop()}>Stop and keep</Button>
      <span class="pencil-red" role="status">Recording, {seconds} s</span>
    {:else}
      <Button small onclick={speak}><MicrophoneOutline size="xs" /> Speak it</Button>
    {/if}
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
    align-items: center;
    gap: 10px;
  }
</style>
