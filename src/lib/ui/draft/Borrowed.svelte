<script lang="ts">
  import { onMount } from 'svelte';
  import { locatorText } from '$lib/core/passages';
  import type { BorrowedResult, ToldBorrowing } from '$lib/server/drafts';
  import type { Job } from '$lib/server/jobs';
  import JobGoing from '../capture/JobGoing.svelte';
  import { isGoing } from '../capture/jobs';
  import { call } from '../frame/client';
  import { heard } from '../frame/live.svelte';
  import { attempt } from '../frame/toasts.svelte';
  import { timeLabel } from '../frame/dates';
  import { Button } from '../kit';

  interface Props {
    draftId: string;
    /** Sends what was typed, so that what is compared is what stands there. */
    flush: () => Promise<void>;
    onopen: (part: string) => void;
  }
  /** Words of the text that stand in kept documents too and are not quoted, each with its place in both. */
  let { draftId, flush, onopen }: Props = $props();
  type BorrowedJob = Job<unknown, BorrowedResult>;
  let job = $state.raw<BorrowedJob | null>();
  const result = $derived(job?.result ?? undefined);

  /** What was asked last is what is shown, in whatever order the answers come. */
  let turn = 0;
  const renew = () =>
    attempt(async () => {
      const mine = ++turn;
      const told = await call<{ job: BorrowedJob | null }>('GET', `/api/drafts/${draftId}/borrowed`);
      if (mine === turn) ({ job } = told);
    });
  onMount(() => {
    void renew();
    return heard('jobs', () => void renew());
  });
  const begin = () =>
    attempt(async () => {
      await flush();
      await call('POST', `/api/drafts/${draftId}/borrowed`, {});
      // It may have ended before this answer came.
      await renew();
    });

  /** The reader at the place of some words: the first of them tell where. */
  const placeOf = ({ copyId, theirs }: ToldBorrowing) =>
    `/copies/${copyId}?words=${encodeURIComponent(theirs.split(/\s+/).slice(0, 12).join(' '))}`;
  const many = (n: number, one: string, more: string) =>
    n === 1 ? one : `${n.toLocaleString('en')} ${more}`;
  const groups = $derived([
    { name: 'Neither quoted nor cited', of: result?.borrowings.filter((b) => !b.cited) ?? [] },
    { name: 'Cited, and not in quotation marks', of: result?.borrowings.filter((b) => b.cited) ?? [] },
  ]);
</script>

<section aria-label="Words of others">
  <h3>Words of others</h3>
  <p class="why">
    Eight words in a row that stand in a kept document belong in quotation marks, or are put in your own
    words.
  </p>
  {#if job && isGoing(job)}
    <JobGoing {job} />
  {:else}
    <div class="line">
      <Button small onclick={begin}>{result ? 'Compare again' : 'Compare with all that is kept'}</Button>
      <span class="small-label" role="status">
        {#if job?.state === 'failed'}{job.error?.message}
        {:else if result}{[
            result.total ? many(result.total, 'One run', 'runs') : '',
            result.total
              ? `in ${many(result.documents, 'one document', 'documents')},`
              : `${many(result.documents, 'One document', 'documents')} looked through,`,
            timeLabel(job!.updated),
          ]
            .filter(Boolean)
            .join(' ')}{/if}
      </span>
    </div>
  {/if}
  {#if result && !(job && isGoing(job))}
    {#each groups as { name, of } (name)}
      {#if of.length}
        <h4>{name}</h4>
        <ul>
          {#each of as one, i (i)}
            <li>
              <Button look="bare" class="where" onclick={() => onopen(one.part)}>{one.text}</Button>
              <span class="from">
                {one.words} words, as in
                <a href={placeOf(one)}>{one.source}{one.locator ? `, ${locatorText(one.locator)}` : ''}</a
                >{#each one.others as other (other.sourceId)}, <a href="/sources/{other.sourceId}"
                    >{other.source}</a
                  >{/each}
              </span>
            </li>
          {/each}
        </ul>
      {/if}
    {/each}
    {#if result.total > result.borrowings.length}
      <p class="why">The {result.borrowings.length} longest are shown.</p>
    {:else if result.total === 0}
      <p class="why">No eight words in a row stand in a kept document without quotation marks.</p>
    {/if}
  {/if}
</section>

<style>
  section {
    padding: 9px 14px;
    border-bottom: 1px solid var(--rule);
  }
  h3 {
    font-size: 13.5px;
    font-weight: 650;
  }
  h4 {
    margin-top: 8px;
    font-size: 12.5px;
    font-weight: 650;
  }
  .why,
  .from {
    color: var(--ink-3);
    font-size: 12px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    padding-top: 4px;
  }
  li {
    padding: 4px 0;
    font-size: 13px;
  }
  li :global(.where) {
    overflow-wrap: anywhere;
    text-align: left;
    text-decoration: underline dotted;
  }
  .from {
    display: block;
  }
  a {
    text-decoration: underline;
  }
</style>
