<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { looksLikeReference, splitReferences } from '$lib/core/leads';
  import { recognise, recogniseLines } from '$lib/core/source';
  import { followWaiting, sendWaiting, waitFor, waits } from '$lib/ui/capture/sending.svelte';
  import { whoHere } from '$lib/ui/capture/waiting';
  import WaitingHere from '$lib/ui/capture/WaitingHere.svelte';
  import { Button, FileButton, Textarea } from '$lib/ui/kit';
  import Door from '$lib/ui/people/Door.svelte';

  /** What is shown where the server is not reached: a place to capture all the same. */
  let text = $state('');
  let said = $state('');
  let reached = $state(false);
  let known = $state(false);
  /** How often the server is asked whether it is back, in milliseconds. */
  const AGAIN = 4_000;
  /** Where one was going: a view of this server, and no other site. */
  const to = $derived.by(() => {
    const given = page.url.searchParams.get('to') ?? '/';
    return /^\/(?![/\\])/.test(given) ? given : '/';
  });

  async function look() {
    const well = await fetch('/health', { cache: 'no-store' }).then(
      (answer) => answer.ok,
      () => false,
    );
    if (well && !reached && waits.all.some((one) => !one.trouble)) {
      const sent = await sendWaiting();
      if (sent) said = sent === 1 ? 'What waited is sent.' : `${sent} that waited are sent.`;
    }
    reached = well;
  }
  onMount(() => {
    const stop = followWaiting();
    void whoHere()
      .then((who) => (known = Boolean(who)))
      .catch(() => undefined);
    void look();
    const timer = setInterval(() => void look(), AGAIN);
    return () => {
      stop();
      clearInterval(timer);
    };
  });

  async function keep(event: Event) {
    event.preventDefault();
    const given = text.trim();
    if (!given) return;
    const thought =
      !recogniseLines(given) &&
      recognise(given).kind === 'text' &&
      !splitReferences(given).some(looksLikeReference);
    const kept = await waitFor(
      thought
        ? { kind: 'note', body: { body: given, projectId: null, sourceId: null } }
        : { kind: 'capture', body: { text: given } },
    );
    said = kept ? 'Kept in this browser.' : 'This browser keeps nothing. Write it down elsewhere.';
    if (kept) text = '';
    if (reached) await sendWaiting();
  }
  async function takeFiles(files: FileList | File[]) {
    for (const file of files)
      said = (await waitFor({ kind: 'file', name: file.name, into: {}, file }))
        ? `${file.name} is kept in this browser.`
        : `This browser has no room for ${file.name}.`;
  }
</script>

<Door title={reached ? 'The server is back' : 'The server is not reached'}>
  {#if reached}
    <p class="mb-4"><Button look="main" onclick={() => location.assign(to)}>Go on</Button></p>
  {:else if known}
    <p>What you capture now is kept in this browser, and sent when the server is reached again.</p>
  {:else}
    <p>Nobody is signed in in this browser. Come back when the server is reached.</p>
  {/if}
  {#if known}
    <form onsubmit={keep}>
      <label for="away-what">An address, a DOI, an ISBN, a reference, or a thought</label>
      <Textarea
        id="away-what"
        rows={4}
        bind:value={text}
        autofocus
        onkeydown={(e: KeyboardEvent) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void keep(e);
        }}
      />
      <div class="flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={!text.trim()}>Keep it</Button>
        <FileButton multiple label="Files to capture" onfiles={(files) => void takeFiles(files)}
          >A file…</FileButton
        >
      </div>
    </form>
  {/if}
  <p role="status">{said}</p>
  <WaitingHere />
</Door>
