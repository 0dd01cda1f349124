<script lang="ts">
  import { goto } from '$app/navigation';
  import type { CopyHead } from '$lib/server/copies';
  import type { Renewal } from '$lib/server/passages';
  import { Button, PageHead, Select } from '../kit';
  import { call, COPY_KINDS } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { attempt, done } from '../frame/toasts.svelte';

  interface Props {
    source: { id: string; label: string; title: string };
    copy: CopyHead;
    /** All copies of the source, the latest first. */
    copies: CopyHead[];
  }
  /** Which copy is read, and where else it is. */
  let { source, copy, copies }: Props = $props();
  let renewing = $state(false);
  const alike = (kind: string) => copies.filter((c) => c.kind === kind).length;

  async function renew() {
    renewing = true;
    const renewal = await attempt(() => call<Renewal>('POST', `/api/copies/${copy.id}/renew`, {}));
    renewing = false;
    if (!renewal) return;
    if (!renewal.changed) return done('The page has not changed.');
    const { found, moved, changed, lost } = renewal.passages;
    const again = found + moved + changed;
    const more = [
      ...(changed ? [`${changed} with changed words`] : []),
      ...(lost ? [`${lost} stay on the old copy, marked as lost`] : []),
    ];
    done(
      `The page has changed. ${again} of ${again + lost} passages were found in it again${more.map((words) => `; ${words}`).join('')}.`,
    );
    await goto(`/copies/${renewal.copyId}`);
  }
</script>

<PageHead>
  <a class="small-label" href="/sources">‹ Sources</a>
  <h1 class="serif">{source.label}</h1>
  <span class="sub what" title={source.title}
    >{COPY_KINDS[copy.kind]}, captured {dateLabel(copy.captured)}</span
  >
  <span class="flex-1"></span>
  {#if copies.length > 1}
    <Select
      look="chip"
      aria-label="Copy"
      value={copy.id}
      onchange={(e) => goto(`/copies/${e.currentTarget.value}`)}
    >
      {#each copies as { id, kind, captured }, i (id)}<option value={id}
          >{COPY_KINDS[kind]}, {dateLabel(captured)}{alike(kind) > 1
            ? `, no. ${copies.length - i}`
            : ''}</option
        >{/each}
    </Select>
  {/if}
  {#if copy.kind !== 'page'}<Button look="chip" href="/copies/{copy.id}/file" target="_blank"
      >Open the file</Button
    >{/if}
  {#if copy.address}
    <Button look="chip" href={copy.address} target="_blank" rel="noreferrer">On the web</Button>
    <Button look="chip" onclick={renew} disabled={renewing}>{renewing ? 'Looking…' : 'Look again'}</Button>
  {/if}
  <Button look="chip" class="border-thread bg-thread-soft" href="/sources/{source.id}">Record</Button>
</PageHead>

<style>
  h1 {
    font-size: 17px;
  }
  .what {
    max-width: 36ch;
    overflow: hidden;
    font-size: 13px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
