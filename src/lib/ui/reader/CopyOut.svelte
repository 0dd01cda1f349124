<script lang="ts">
  import { DotsHorizontalOutline } from 'flowbite-svelte-icons';
  import type { CopyHead } from '$lib/server/copies';
  import type { Brought, Carried } from '$lib/server/passages';
  import { goto } from '$app/navigation';
  import { call, copyKind, download } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done, doneWithUndo } from '../frame/toasts.svelte';
  import { allows, Button, Dialog, FileButton, Popover } from '../kit';
  import { page } from '$app/state';
  import ListedDialog from '../capture/ListedDialog.svelte';
  import RecogniseDialog from './RecogniseDialog.svelte';

  /** What goes out of a copy and comes into it: its passages, and marks made elsewhere. */
  let { copy, copies, passages }: { copy: CopyHead; copies: CopyHead[]; passages: number } = $props();
  const others = $derived(copies.filter((c) => c.id !== copy.id));
  let brought = $state.raw<Brought | undefined>();
  let told = $state(false);
  let recognising = $state(false);
  let listing = $state(false);

  async function out() {
    const made = await attempt(() =>
      call<{ name: string; body: string }>('GET', `/api/copies/${copy.id}/annotations`),
    );
    if (made) download(made.name, 'application/ld+json', made.body);
  }

  function say(made: Brought) {
    brought = made;
    const { kept, already, lost, problems } = made;
    const more = [
      ...(already ? [`${already} were here already`] : []),
      ...(lost.length ? [`${lost.length} are not in this text`] : []),
      ...(problems.length ? [`${problems.length} could not be read`] : []),
    ];
    const words = `${kept.length === 1 ? 'One passage is' : `${kept.length} passages are`} kept${more.map((m) => `; ${m}`).join('')}.`;
    doneWithUndo(words, async () => {
      if (kept.length) await call('POST', '/api/passages/many', { act: 'bin', ids: kept });
    });
    told = lost.length + problems.length > 0;
  }

  async function bring(files: File[]) {
    for (const file of files) {
      const made = await attempt(() => call<Brought>('POST', `/api/copies/${copy.id}/annotations`, file));
      if (made) say(made);
    }
    await renewed();
  }
  async function carry(to: string) {
    const made = await attempt(() => call<Carried>('POST', `/api/copies/${copy.id}/carry`, { to }));
    if (!made) return;
    const { found, moved, changed, lost } = made.passages;
    const over = found + moved + changed;
    const more = [
      ...(changed ? [`${changed} of them with changed words`] : []),
      ...(lost ? [`${lost} are not in it and stay here`] : []),
    ];
    done(
      `${over === 1 ? 'One passage is' : `${over} passages are`} carried over${more.map((m) => `; ${m}`).join('')}.`,
      made.revisions,
    );
    await goto(`/copies/${to}`);
  }
  async function marks() {
    const made = await attempt(() => call<Brought>('POST', `/api/copies/${copy.id}/marks`, {}));
    if (made) say(made);
    await renewed();
  }
</script>

<Button look="chip" id="copy-out" aria-label="Passages out and in"><DotsHorizontalOutline size="sm" /></Button
>
<Popover triggeredBy="#copy-out" label="Passages out and in">
  <div class="ways">
    {#if copy.kind !== 'page'}<Button small look="quiet" href="/copies/{copy.id}/file" target="_blank"
        >Open the file</Button
      >{/if}
    {#if copy.address}<Button small look="quiet" href={copy.address} target="_blank" rel="noreferrer"
        >See it on the web</Button
      >{/if}
    <Button small look="quiet" href="/passages?source={copy.source_id}&sort=source"
      >All passages of this source</Button
    >
    <Button small look="quiet" disabled={passages === 0} onclick={out}
      >Save passages as annotations (JSON-LD)</Button
    >
    {#if copy.kind === 'page' && !/html/.test(copy.media_type)}
      <Button small look="quiet" href="/copies/{copy.id}/file" download
        >Save the document as it was kept</Button
      >
    {/if}
    {#if copy.kind !== 'audio' && copy.media_type !== 'application/octet-stream'}
      <Button small look="quiet" href="/copies/{copy.id}/paper" download>Save a reading copy (PDF)</Button>
    {/if}
    {#if allows('edit') && copy.kind !== 'audio'}<Button small look="quiet" onclick={() => (listing = true)}
        >Leads from its list of references…</Button
      >{/if}
    {#if copy.kind === 'pdf' || copy.kind === 'image'}
      <Button small look="quiet" onclick={() => (recognising = true)}>Recognise the text…</Button>
    {/if}
    {#if copy.kind === 'pdf'}
      <Button small look="quiet" href="/copies/{copy.id}/marked" download disabled={passages === 0}
        >Save the PDF with its marks</Button
      >
      <Button small look="quiet" onclick={marks}>Take over marks made in the PDF</Button>
    {/if}
    {#each passages ? others : [] as other (other.id)}
      <Button small look="quiet" onclick={() => carry(other.id)}
        >Carry the passages to the {copyKind(other)} of {dateLabel(other.captured)}</Button
      >
    {/each}
    <FileButton small label="Annotations of this document" accept=".jsonld,.json" onfiles={bring}
      >Bring annotations (JSON-LD)</FileButton
    >
  </div>
</Popover>
<ListedDialog
  bind:open={listing}
  from="/api/copies/{copy.id}/references"
  projectId={page.data.projectId as string | undefined}
/>
<RecogniseDialog bind:open={recognising} copyId={copy.id} {passages} />

<Dialog bind:open={told} title="Not all of it could be kept" size="md">
  {#if brought?.lost.length}
    <p>These words are not in the text of this copy:</p>
    <ul class="list">
      {#each brought.lost as { nth, words } (nth)}<li>No. {nth}: <q class="serif">{words}</q></li>{/each}
    </ul>
  {/if}
  {#if brought?.problems.length}
    <p>These could not be read:</p>
    <ul class="list">
      {#each brought.problems as { nth, reason } (nth)}<li>No. {nth}: {reason}</li>{/each}
    </ul>
  {/if}
</Dialog>

<style>
  .ways {
    display: grid;
    gap: 4px;
    justify-items: start;
    min-width: 260px;
  }
  .list {
    max-height: 240px;
    padding-left: 1.2em;
    overflow: auto;
    list-style: disc;
  }
</style>
