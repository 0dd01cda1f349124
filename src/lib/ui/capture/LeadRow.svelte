<script lang="ts">
  import { goto } from '$app/navigation';
  import { TYPE_LABELS } from '$lib/core/source';
  import type { LeadItem, Offer } from '$lib/server/leads';
  import { call } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Checkbox } from '../kit';

  /** A work met while reading: ticked off when it is found, looked up, or started by hand. */
  let { lead }: { lead: LeadItem } = $props();
  let looking = $state(false);
  let offers = $state<Offer[] | undefined>();

  async function act(what: Record<string, unknown>, words: string) {
    const made = await attempt(() => call<{ revisionId?: string }>('POST', `/api/leads/${lead.id}`, what));
    if (!made) return;
    done(words, [made.revisionId]);
    offers = undefined;
    await renewed();
  }

  async function lookUp() {
    if (lead.parsed.DOI) return capture(lead.parsed.DOI);
    looking = true;
    const answer = await attempt(() => call<{ offers: Offer[] }>('POST', `/api/leads/${lead.id}/offers`, {}));
    looking = false;
    if (answer) offers = answer.offers;
  }

  async function capture(doi: string) {
    const sent = await attempt(() => call('POST', '/api/captures', { text: doi, leadId: lead.id }));
    if (!sent) return;
    offers = undefined;
    done('Being captured; the lead is ticked off when it is there.');
  }

  async function byHand() {
    const made = await attempt(() => call<{ id: string }>('POST', `/api/leads/${lead.id}/by-hand`, {}));
    if (made) await goto(`/sources/${made.id}?new=1`);
  }
</script>

<li class="lead" data-lead={lead.id} class:ticked={lead.ticked}>
  <Checkbox
    aria-label="Tick off: {lead.title || lead.text.slice(0, 60)}"
    checked={Boolean(lead.ticked)}
    onchange={(e) =>
      act(
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
        {lead.here.sure ? 'Surely one you have' : 'Looks like one you have'}:
        <a class="link" href="/sources/{lead.here.id}">{lead.here.label}</a>{#if lead.here.adds.length}. New
          in the lead: {lead.here.adds.join(', ')}{/if}
        <Button
          needs="edit"
          small
          onclick={() => act({ act: 'tick', sourceId: lead.here!.id }, 'Ticked off.')}>That is it</Button
        >
      </p>
    {/if}
    {#if offers}
      {#if offers.length === 0}
        <p class="small-label">
          The registry finds nothing near it. Start it by hand, or search in your library catalogue and
          capture from there.
        </p>
      {:else}
        <ul class="offers" aria-label="What the registry finds">
          {#each offers as offer (offer.doi ?? offer.title)}
            <li>
              <div>
                <span class="serif">{offer.title}</span>
                <span class="small-label"
                  >{[offer.who, offer.year, offer.container, TYPE_LABELS[offer.type]]
                    .filter(Boolean)
                    .join(' · ')}{offer.nearness > 0.85 ? '' : ' · only near'}</span
                >
              </div>
              {#if offer.doi}<Button needs="edit" small onclick={() => capture(offer.doi!)}
                  >Capture this</Button
                >{/if}
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
  </div>
  <div class="acts">
    {#if !lead.ticked}
      <Button needs="edit" small disabled={looking} onclick={() => lookUp()}
        >{looking ? 'Looking…' : 'Look it up'}</Button
      >
      <Button needs="edit" small onclick={() => byHand()}>By hand</Button>
    {/if}
    <Button needs="edit" small look="quiet" onclick={() => act({ act: 'bin' }, 'The lead is in the bin.')}
      >Put in the bin</Button
    >
  </div>
</li>

<style>
  .lead {
    display: grid;
    grid-template-columns: 15px minmax(0, 1fr) auto;
    gap: 14px;
    padding: 12px 26px;
    border-bottom: 1px solid var(--rule);
  }
  .lead > :global(input) {
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
    .lead {
      grid-template-columns: 15px minmax(0, 1fr);
    }
    .acts {
      grid-column: 2;
      flex-wrap: wrap;
    }
  }
</style>
