<script lang="ts">
  import { allows, Button, Empty, PageHead } from '$lib/ui/kit';
  import { page } from '$app/state';
  import LeadRow from '$lib/ui/capture/LeadRow.svelte';
  import PutDown from '$lib/ui/capture/PutDown.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';

  let { data } = $props();
  const open = $derived(data.leads.filter((l) => !l.ticked));
  const ticked = $derived(data.leads.filter((l) => l.ticked));
</script>

<svelte:head><title>Leads · Retexa</title></svelte:head>

<PageHead>
  <h1>Leads</h1>
  <span class="sub"
    >{open.length} to find{ticked.length ? `, ${ticked.length} ticked off` : ''}{data.metIn
      ? `, met in ${data.metIn.label}`
      : ''}</span
  >
  <span class="flex-1"></span>
  <FindField what="leads" />
  {#if [...page.url.searchParams.keys()].length}<Button small look="quiet" href="/leads">Show all</Button
    >{/if}
</PageHead>

{#if allows('edit')}<PutDown projectId={data.projectId ?? null} metIn={data.metIn?.id ?? null} />{/if}

{#if data.leads.length === 0}
  <Empty>
    <h2>No leads</h2>
    <p>
      A reference met while reading can be put down here without leaving the page: paste it above, or into the
      capture field. It is ticked off when the work is found.
    </p>
  </Empty>
{:else}
  <ul class="leads">
    {#each open as lead (lead.id)}<LeadRow {lead} />{/each}
    {#each ticked as lead (lead.id)}<LeadRow {lead} />{/each}
  </ul>
{/if}
