<script lang="ts">
  import type { Snippet } from 'svelte';
  import { CSL_TYPES, recognise, TYPE_LABELS, type CslType } from '$lib/core/source';
  import { Button, Input, Select } from '../kit';
  import { call } from '../frame/client';
  import { attempt, done } from '../frame/toasts.svelte';

  interface Props {
    type: CslType;
    /** Goes with the source: where it is filed. */
    into: () => object;
    /** An address it is of, if it has one. */
    address?: string | undefined;
    onlookup: (isbn: string) => void;
    /** Where it is filed, as it is chosen. */
    where: Snippet;
  }
  let { type: wanted, into, address, onlookup, where }: Props = $props();
  // svelte-ignore state_referenced_locally
  let type = $state(wanted);
  let title = $state('');
  let isbn = $state('');

  async function start(event: Event) {
    event.preventDefault();
    const made = await attempt(() =>
      call<{ id: string }>('POST', '/api/sources', {
        type,
        ...(title.trim() ? { title } : {}),
        ...(isbn.trim() ? { ISBN: isbn } : {}),
        ...(address ? { URL: address } : {}),
        into: into(),
      }),
    );
    if (!made) return;
    done('It waits in Intake.');
    [title, isbn] = ['', ''];
  }
</script>

<form onsubmit={start}>
  <label for="c-type">Kind of source</label>
  <Select id="c-type" bind:value={type}>
    {#each CSL_TYPES as t (t)}<option value={t}>{TYPE_LABELS[t]}</option>{/each}
  </Select>
  <label for="c-title">Title</label>
  <Input id="c-title" class="font-serif" bind:value={title} />
  <label for="c-isbn">ISBN, if it has one</label>
  <div class="flex items-center gap-2">
    <Input id="c-isbn" class="flex-1" bind:value={isbn} />
    <Button disabled={recognise(isbn).kind !== 'isbn'} onclick={() => onlookup(isbn)}>Look it up</Button>
  </div>
  {@render where()}
  <Button look="main" type="submit" disabled={!title.trim() && !isbn.trim()}>Start the source</Button>
</form>
