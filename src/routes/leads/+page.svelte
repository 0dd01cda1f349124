<script lang="ts">
  import { allows, Button, Empty, PageHead, Textarea } from '$lib/ui/kit';
  import { page } from '$app/state';
  import { looksLikeReference, splitReferences } from '$lib/core/leads';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import LeadRow from '$lib/ui/capture/LeadRow.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';

  let { data } = $props();
  let text = $state('');
  const open = $derived(data.leads.filter((l) => !l.ticked));
  const ticked = $derived(data.leads.filter((l) => l.ticked));
  const count = $derived(splitReferences(text).length);

  async function keep(event: Event) {
    event.preventDefault();
    const made = await attempt(() =>
      call<{ leads: unknown[] }>('POST', '/api/leads', {
        text,
        projectId: data.projectId ?? null,
        metIn: data.metIn?.id ?? null,
      }),
    );
    if (!made) return;
    text = '';
    done(made.leads.length === 1 ? 'Kept as a lead.' : `${made.leads.length} kept as leads.`);
    await renewed();
  }
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

{#if allows('edit')}<form class="put-down" onsubmit={keep}>
    <label for="new-leads">Works met while reading: paste a reference, or a whole list of them</label>
    <Textarea
      id="new-leads"
      class="font-serif"
      rows="3"
      bind:value={text}
      placeholder="Barrow, E. M. (1998). Grain and tide …"
    ></Textarea>
    <div class="line">
      <Button look="main" type="submit" disabled={!text.trim()}
        >{count > 1 ? `Keep ${count} as leads` : 'Keep as a lead'}</Button
      >
      {#if text.trim() && !splitReferences(text).some(looksLikeReference)}<span class="small-label"
          >Does not read as a reference, and can be kept all the same.</span
        >{/if}
    </div>
  </form>{/if}

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

<style>
  .put-down {
    display: grid;
    gap: 6px;
    padding: 14px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .put-down label {
    color: var(--ink-2);
    font-size: 13px;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 12px;
  }
</style>
