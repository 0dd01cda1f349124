<script lang="ts">
  import { invalidate } from '$app/navigation';
  import { call } from '$lib/ui/frame/client';
  import { timeLabel } from '$lib/ui/frame/dates';
  import { attempt } from '$lib/ui/frame/toasts.svelte';
  import { Button, Empty, FileButton, PageHead, Progress } from '$lib/ui/kit';
  import Lines from '$lib/ui/people/Lines.svelte';
  import OpenedBackup from '$lib/ui/people/OpenedBackup.svelte';

  let { data } = $props();
  const { all, making, problem, every, keep } = $derived(data.backups);
  const renew = () => invalidate('retexa:backups');
  const size = (bytes: number) =>
    bytes < 1e6
      ? `${Math.ceil(bytes / 1e3)} kB`
      : `${(bytes / 1e6).toLocaleString('en', { maximumFractionDigits: 1 })} MB`;

  const how = $derived(data.opening);
  const busy = $derived(Boolean(making ?? how.under));
  let sent = $state('');

  // While something goes on, it is looked how far it is.
  $effect(() => {
    if (!busy) return;
    const again = setInterval(() => void renew(), 1_000);
    return () => clearInterval(again);
  });
  const begin = () =>
    attempt(async () => {
      await call('POST', '/api/backups', {});
      await renew();
    });
  const open = (name: string) =>
    attempt(async () => {
      await call('POST', '/api/backups/opened', { name });
      await renew();
    });
  const openFile = ([file]: File[]) =>
    attempt(async () => {
      sent = file!.name;
      try {
        await call('POST', `/api/backups/opened/file?name=${encodeURIComponent(file!.name)}`, file);
        await renew();
      } finally {
        sent = '';
      }
    });
</script>

<svelte:head><title>Backup · Retexa</title></svelte:head>

<PageHead>
  <h1>Backup</h1>
  <span class="sub">all libraries of this server, in one file</span>
  <span class="flex-1"></span>
  <FileButton
    label="A backup to open"
    accept=".tar,application/x-tar"
    disabled={busy || Boolean(sent)}
    onfiles={openFile}>Open a file…</FileButton
  >
  <Button look="main" onclick={begin} disabled={Boolean(making)}>Make one now</Button>
</PageHead>

<div class="view">
  <p>
    A backup holds everything everybody has here: records, passages, documents, notes, outlines and drafts. It
    can be read without Retexa, and every file in it has a checksum. Save it on another disk. {every
      ? `One is made every ${every === 1 ? 'hour' : `${every} hours`}; the last ${keep} are kept.`
      : `The last ${keep} are kept. None is made by itself: whoever runs the server sets RETEXA_BACKUP_HOURS for that.`}
  </p>
  {#if making}
    <div class="making" role="status">
      <span>A backup is being made; go on working. {making.share} %</span>
      <Progress label="Making the backup" done={making.share} total={100} width="100%" />
    </div>
  {/if}
  {#if problem}<p class="pencil-red" role="alert">The last one was not made: {problem}</p>{/if}
  {#if all.length}
    <Lines>
      {#each all as { name, size: bytes, made } (name)}
        <li>
          <span>{timeLabel(made)} <span class="sub">{size(bytes)}</span></span>
          <span class="flex gap-2">
            <Button small onclick={() => open(name)} disabled={busy}>Look inside</Button>
            <Button small href="/api/backups/{name}" download={name} data-sveltekit-reload
              >Save as a file</Button
            >
          </span>
        </li>
      {/each}
    </Lines>
  {:else if !making}
    <Empty>
      <h2>No backup yet</h2>
      <p>Make one now; it takes seconds for a few hundred sources, and nobody has to wait for it.</p>
    </Empty>
  {/if}
  {#if sent}<p role="status">{sent} is being sent to the server.</p>{/if}
  <OpenedBackup state={how} {renew} />
  <p class="mt-5">
    Open a backup to bring a library back out of it, or to bring one over from another server, while all go on
    working. To put a whole server back as it was, stop it and run: npm run backup -- restore FILE.tar
    --replace. What was there is kept.
  </p>
</div>

<style>
  .view {
    max-width: 900px;
    padding: 18px 26px 60px;
  }
  p {
    max-width: 70ch;
    color: var(--ink-2);
  }
  .making {
    display: grid;
    gap: 6px;
    max-width: 520px;
    margin-top: 16px;
  }
</style>
