<script lang="ts">
  import { goto } from '$app/navigation';
  import type { CopyHead } from '$lib/server/copies';
  import type { Renewal } from '$lib/server/passages';
  import { SearchOutline } from 'flowbite-svelte-icons';
  import { keyFor } from '../frame/actions.svelte';
  import { Button, PageHead, Select, Trail } from '../kit';
  import Here from '../people/Here.svelte';
  import CopyOut from './CopyOut.svelte';
  import QuietReading from './QuietReading.svelte';
  import { call, copyKind } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { attempt, done } from '../frame/toasts.svelte';

  interface Props {
    source: { id: string; label: string; title: string };
    copy: CopyHead;
    /** All copies of the source, the latest first. */
    copies: CopyHead[];
    /** How many passages are kept of it. */
    passages: number;
    /** Whether it has pages of its own; nothing for what is heard. */
    pages?: boolean;
    /** Whether it is read by keys, with a caret. */
    caret?: boolean;
    /** Whether figures are being cut out of it; nothing where it has none to cut out. */
    boxing?: boolean | undefined;
    /** Whether its contents stand beside it; nothing where it has none, or has them elsewhere. */
    contents?: boolean | undefined;
    oncontents?: () => void;
    /** Told when pictures are there that were missing. */
    onpictures?: () => void;
    onfind?: () => void;
    oncaret?: () => void;
    onfigure?: () => void;
  }
  /** Which copy is read, and where else it is. */
  let {
    source,
    copy,
    copies,
    passages,
    pages,
    caret,
    boxing,
    contents,
    oncontents,
    onpictures,
    onfind,
    oncaret,
    onfigure,
  }: Props = $props();
  let renewing = $state(false);
  const alike = (kind: string) => copies.filter((c) => copyKind(c) === kind).length;

  async function renew() {
    renewing = true;
    const renewal = await attempt(() => call<Renewal>('POST', `/api/copies/${copy.id}/renew`, {}));
    renewing = false;
    if (!renewal) return;
    if (!renewal.changed) {
      const { pictures } = renewal;
      done(
        pictures
          ? `The page has not changed; ${pictures === 1 ? 'a picture that was missing is' : `${pictures} pictures that were missing are`} kept now.`
          : 'The page has not changed.',
      );
      if (pictures) onpictures?.();
      return;
    }
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
  <Trail above={[{ href: '/sources', name: 'Sources' }]} />
  <h1 class="serif">{source.label}</h1>
  <span class="sub what" data-tip={source.title}
    >{copies.length === 1 ? `${copyKind(copy)}, captured ${dateLabel(copy.captured)}` : ''}</span
  >
  <Here source={source.id} />
  {#if copies.length > 1}
    <Select
      look="chip"
      aria-label="Copy"
      value={copy.id}
      onchange={(e) => goto(`/copies/${e.currentTarget.value}`)}
    >
      {#each copies as other, i (other.id)}<option value={other.id}
          >{copyKind(other)}, {dateLabel(other.captured)}{alike(copyKind(other)) > 1
            ? `, no. ${copies.length - i}`
            : ''}</option
        >{/each}
    </Select>
  {/if}
  {#if pages !== undefined}
    <Button look="chip" aria-label="Find in this document" title={keyFor('reader find')} onclick={onfind}
      ><SearchOutline size="sm" /></Button
    >
    {#if contents !== undefined}<Button
        look="chip"
        class="max-[900px]:hidden"
        aria-pressed={contents}
        onclick={oncontents}>Contents</Button
      >{/if}
    <Button look="chip" aria-pressed={caret} title={keyFor('reader caret')} onclick={oncaret}
      >Read by keys</Button
    >
    {#if boxing !== undefined}<Button
        look="chip"
        aria-pressed={boxing}
        aria-label="Cut out a figure"
        title={keyFor('reader figure')}
        onclick={onfigure}>Figure</Button
      >{/if}
    <QuietReading {pages} />
  {/if}
  <CopyOut {copy} {copies} {passages} />
  {#if copy.address}
    <Button look="chip" onclick={renew} disabled={renewing}>{renewing ? 'Looking…' : 'Look again'}</Button>
  {/if}
  <Button look="chip" class="border-thread bg-thread-soft" href="/sources/{source.id}">Record</Button>
</PageHead>

<style>
  h1 {
    font-size: 17px;
  }
  .what {
    flex: 1 1 0;
    min-width: 0;
    overflow: hidden;
    font-size: 13px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
