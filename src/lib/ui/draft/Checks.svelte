<script lang="ts">
  import { onMount } from 'svelte';
  import { DRAFT_CHECKS, type DraftCheck, type DraftFinding } from '$lib/core/drafting';
  import { Button } from '../kit';
  import { call } from '../frame/client';
  import { attempt } from '../frame/toasts.svelte';
  import Borrowed from './Borrowed.svelte';

  interface Props {
    draftId: string;
    /** Sends what was typed, so that what is looked at is what stands there. */
    flush: () => Promise<void>;
    onopen: (part: string, cite: string | undefined) => void;
  }
  /** What is to be looked at in the text: cited records, quotations, sections; each with its place. */
  let { draftId, flush, onopen }: Props = $props();
  let findings = $state.raw<DraftFinding[]>();
  let busy = $state(false);
  const groups = $derived(
    (Object.keys(DRAFT_CHECKS) as DraftCheck[])
      .map((check) => ({ check, of: (findings ?? []).filter((f) => f.check === check) }))
      .filter(({ of }) => of.length),
  );
  async function look() {
    busy = true;
    await attempt(async () => {
      await flush();
      findings = (await call<{ findings: DraftFinding[] }>('GET', `/api/drafts/${draftId}/checks`)).findings;
    });
    busy = false;
  }
  onMount(() => void look());
</script>

<div class="head">
  <Button small look="main" disabled={busy} onclick={look}
    >{findings ? 'Look again' : 'Look it through'}</Button
  >
  <span class="small-label" role="status">
    {busy
      ? 'Looking…'
      : findings
        ? findings.length === 1
          ? 'One thing to look at'
          : `${findings.length.toLocaleString('en')} things to look at`
        : ''}
  </span>
</div>
<div class="all">
  {#each groups as { check, of } (check)}
    <section aria-label={DRAFT_CHECKS[check].name}>
      <h3>{DRAFT_CHECKS[check].name}</h3>
      <p class="why">{DRAFT_CHECKS[check].why}</p>
      <ul>
        {#each of as finding, i (i)}
          <li>
            <Button
              look="bare"
              class="where"
              disabled={!finding.part && !finding.source}
              onclick={() => onopen(finding.part, finding.cite)}>{finding.words}</Button
            >
            {#if finding.source}<a href="/sources/{finding.source}">Record</a>{/if}
          </li>
        {/each}
      </ul>
    </section>
  {/each}
  {#if findings?.length === 0}
    <p class="why">
      Nothing to look at: every citation has its record and fields, every quotation its words and place.
    </p>
  {/if}
  <Borrowed {draftId} {flush} onopen={(part) => onopen(part, undefined)} />
</div>

<style>
  .head {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 8px 14px;
    border-bottom: 1px solid var(--rule);
  }
  .all {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
  section,
  .all > .why {
    padding: 9px 14px;
    border-bottom: 1px solid var(--rule);
  }
  h3 {
    font-size: 13.5px;
    font-weight: 650;
  }
  .why {
    color: var(--ink-3);
    font-size: 12px;
  }
  li {
    display: flex;
    gap: 8px;
    justify-content: space-between;
    padding: 3px 0;
    font-size: 13px;
  }
  li :global(.where) {
    overflow-wrap: anywhere;
    text-align: left;
    text-decoration: underline dotted;
  }
  a {
    flex: none;
    text-decoration: underline;
  }
</style>
