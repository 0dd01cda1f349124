<script lang="ts">
  import { Button, Checkbox, Empty, PageHead, Textarea } from '$lib/ui/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { looksLikeReference, splitReferences } from '$lib/core/leads';
  import { TYPE_LABELS } from '$lib/core/source';
  import type { LeadItem, Offer } from '$lib/server/leads';
  import { call } from '$lib/ui/frame/client';
  import { renewed } from '$lib/ui/frame/live.svelte';
  import { attempt, done } from '$lib/ui/frame/toasts.svelte';
  import FindField from '$lib/ui/frame/FindField.svelte';

  let { data } = $props();
  let text = $state('');
  let looking = $state<string | undefined>();
  let offers = $state<{ id: string; list: Offer[] } | undefined>();
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

  async function act(lead: LeadItem, what: Record<string, unknown>, words: string) {
    const made = await attempt(() => call<{ revisionId?: string }>('POST', `/api/leads/${lead.id}`, what));
    if (!made) return;
    done(words, [made.revisionId]);
    if (offers?.id === lead.id) offers = undefined;
    await renewed();
  }

  async function lookUp(lead: LeadItem) {
    if (lead.parsed.DOI) return capture(lead, lead.parsed.DOI);
    looking = lead.id;
    const answer = await attempt(() => call<{ offers: Offer[] }>('POST', `/api/leads/${lead.id}/offers`, {}));
    looking = undefined;
    if (answer) offers = { id: lead.id, list: answer.offers };
  }

  async function capture(lead: LeadItem, doi: string) {
    const sent = await attempt(() => call('POST', '/api/captures', { text: doi, leadId: lead.id }));
    if (!sent) return;
    offers = undefined;
    done('Being captured; the lead is ticked off when it is there.');
  }

  async function byHand(lead: LeadItem) {
    const made = await attempt(() => call<{ id: string }>('POST', `/api/leads/${lead.id}/by-hand`, {}));
    if (made) await goto(`/sources/${made.id}?new=1`);
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

<form class="put-down" onsubmit={keep}>
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
</form>

{#snippet row(lead: LeadItem)}
  <li data-lead={lead.id} class:ticked={lead.ticked}>
    <Checkbox
      aria-label="Tick off: {lead.title || lead.text.slice(0, 60)}"
      checked={Boolean(lead.ticked)}
      onchange={(e) =>
        act(
          lead,
          e.currentTarget.checked ? { act: 'tick', sourceId: lead.here?.id ?? null } : { act: 'untick' },
          e.currentTarget.checked ? 'Ticked off.' : 'Open again.',
        )}
    />
    <div class="what">
      {#if lead.title && (lead.who || lead.year || lead.container)}
        <p class="serif title">{lead.title}</p>
        <p class="parts">{[lead.who, lead.year, lead.container].filter(Boolean).join(' · ')}</p>
        <p class="small-label as-met">{lead.text}</p>
      {:else}<p class="serif title">{lead.text}</p>{/if}
      {#if lead.metInLabel}<p class="small-label">
          Met in <a class="link" href="/sources/{lead.metIn}">{lead.metInLabel}</a>
        </p>{/if}
      {#if lead.foundLabel}<p class="pencil-green">
          Found: <a class="link" href="/sources/{lead.foundId}">{lead.foundLabel}</a>
        </p>{/if}
      {#if lead.here}
        <p class="pencil-blue">
          You have this: <a class="link" href="/sources/{lead.here.id}">{lead.here.label}</a>
          <Button small onclick={() => act(lead, { act: 'tick', sourceId: lead.here!.id }, 'Ticked off.')}
            >That is it</Button
          >
        </p>
      {/if}
      {#if offers?.id === lead.id}
        {#if offers.list.length === 0}
          <p class="small-label">
            The registry finds nothing near it. Start it by hand, or search in your library catalogue and
            capture from there.
          </p>
        {:else}
          <ul class="offers" aria-label="What the registry finds">
            {#each offers.list as offer (offer.doi ?? offer.title)}
              <li>
                <div>
                  <span class="serif">{offer.title}</span>
                  <span class="small-label"
                    >{[offer.who, offer.year, offer.container, TYPE_LABELS[offer.type]]
                      .filter(Boolean)
                      .join(' · ')}{offer.nearness > 0.85 ? '' : ' · only near'}</span
                  >
                </div>
                {#if offer.doi}<Button small onclick={() => capture(lead, offer.doi!)}>Capture this</Button
                  >{/if}
              </li>
            {/each}
          </ul>
        {/if}
      {/if}
    </div>
    <div class="acts">
      {#if !lead.ticked}
        <Button small disabled={looking === lead.id} onclick={() => lookUp(lead)}
          >{looking === lead.id ? 'Looking…' : 'Look it up'}</Button
        >
        <Button small onclick={() => byHand(lead)}>By hand</Button>
      {/if}
      <Button small look="quiet" onclick={() => act(lead, { act: 'bin' }, 'The lead is in the bin.')}
        >Put in the bin</Button
      >
    </div>
  </li>
{/snippet}

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
    {#each open as lead (lead.id)}{@render row(lead)}{/each}
    {#each ticked as lead (lead.id)}{@render row(lead)}{/each}
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
  .leads > li {
    display: grid;
    grid-template-columns: 15px minmax(0, 1fr) auto;
    gap: 14px;
    padding: 12px 26px;
    border-bottom: 1px solid var(--rule);
  }
  .leads > li > :global(input) {
    margin-top: 4px;
  }
  .title {
    font-size: 16px;
    line-height: 1.35;
  }
  .ticked .title {
    color: var(--ink-3);
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }
  .parts {
    color: var(--ink-2);
  }
  .as-met {
    margin-top: 2px;
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    align-items: start;
    gap: 6px;
  }
  .offers {
    margin-top: 8px;
    border: 1px solid var(--rule);
    border-radius: 7px;
  }
  .offers li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 7px 10px;
  }
  .offers li + li {
    border-top: 1px solid var(--rule);
  }
  .offers div {
    display: grid;
    flex: 1;
  }
  @media (max-width: 760px) {
    .leads > li {
      grid-template-columns: 15px minmax(0, 1fr);
    }
    .acts {
      grid-column: 2;
      flex-wrap: wrap;
    }
  }
</style>
