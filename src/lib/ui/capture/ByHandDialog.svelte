<script lang="ts">
  import { Button, Dialog, Input, Select } from '../kit';
  import { goto } from '$app/navigation';
  import { CSL_TYPES, TYPE_LABELS } from '$lib/core/source';
  import { byHand } from './byhand.svelte';
  import { call } from '../frame/client';
  import { attempt } from '../frame/toasts.svelte';

  const COMMON = [
    'article-journal',
    'book',
    'chapter',
    'thesis',
    'report',
    'article-newspaper',
    'webpage',
    'paper-conference',
  ] as const;
  const rest = CSL_TYPES.filter((t) => !(COMMON as readonly string[]).includes(t));
  let busy = $state(false);

  async function start(event: Event) {
    event.preventDefault();
    busy = true;
    const filled = Object.fromEntries(Object.entries(byHand.given).filter(([, v]) => v?.trim()));
    const made = await attempt(() => call<{ id: string }>('POST', '/api/sources', filled));
    busy = false;
    if (!made) return;
    byHand.open = false;
    await goto(`/sources/${made.id}?new=1`);
  }
</script>

<Dialog bind:open={byHand.open} title="Start by hand" size="sm">
  <form onsubmit={start} class="grid gap-3">
    <label>
      <span class="small-label">What kind of source is it?</span>
      <Select bind:value={byHand.given.type}>
        {#each COMMON as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
        <option disabled>──────</option>
        {#each rest as type (type)}<option value={type}>{TYPE_LABELS[type]}</option>{/each}
      </Select>
    </label>
    <label>
      <span class="small-label">Title, if it has one</span>
      <Input class="font-serif" bind:value={byHand.given.title} />
    </label>
    {#if byHand.given.URL}
      <label><span class="small-label">Address</span><Input bind:value={byHand.given.URL} /></label>
    {/if}
    {#if byHand.given.DOI}
      <label><span class="small-label">DOI</span><Input bind:value={byHand.given.DOI} /></label>
    {/if}
    {#if byHand.given.ISBN}
      <label><span class="small-label">ISBN</span><Input bind:value={byHand.given.ISBN} /></label>
    {/if}
    <div class="flex items-center gap-3">
      <Button look="main" type="submit" disabled={busy}>Start the source</Button>
      <span class="small-label">It waits in Intake; the next page has all its fields.</span>
    </div>
  </form>
</Dialog>
