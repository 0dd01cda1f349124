<script lang="ts">
  import { page } from '$app/state';
  import type { RecognisedAgain } from '$lib/server/passages';
  import type { BorrowedInBrief } from '$lib/server/drafts';
  import type { PassResult } from '$lib/server/duplicates';
  import type { ImportInBrief } from '$lib/server/imports';
  import type { Job } from '$lib/server/jobs';
  import type { ManyInput, ManyResult } from '$lib/server/many';
  import { Button } from '../kit';
  import { byHandFrom } from './byhand.svelte';
  import CaptureOutcome from './CaptureOutcome.svelte';
  import JobGoing from './JobGoing.svelte';
  import { actOn, givenTo, isGoing, manyIn } from './jobs';

  /** Captures, imports, searches for duplicates and changes of many under way or just ended; it stays while one keeps reading. */
  let { jobs: all }: { jobs: Job[] } = $props();

  // The import's own page shows its jobs itself, and more room than the tray has.
  const jobs = $derived(page.url.pathname === '/import' ? all.filter((j) => j.kind !== 'import') : all);

  // On a narrow screen it is a line that opens.
  let folded = $state(globalThis.matchMedia?.('(max-width: 760px)').matches ?? false);
  const going = $derived(jobs.filter(isGoing).length);
  const captures = $derived(jobs.every(({ kind }) => kind === 'capture' || kind === 'import'));
  const many = (n: number) => n.toLocaleString('en');

  function byHand(job: Job) {
    byHandFrom(givenTo(job));
    void actOn(job.id, 'dismiss');
  }
  async function undoMany(job: Job) {
    if (await actOn(job.id, 'take-back')) void actOn(job.id, 'dismiss');
  }
  /** What "Put away" of all leaves: what is still going on, and what asks something. */
  const settled = (job: Job) =>
    job.state === 'failed' ||
    (job.state === 'done' &&
      !['here', 'list', 'asks'].includes((job.result as { kind?: string }).kind ?? ''));
</script>

{#if jobs.length}
  <section class="tray" aria-label="Captures">
    <header>
      <Button look="bare" class="title" onclick={() => (folded = !folded)} aria-expanded={!folded}>
        {going ? `${captures ? 'Capturing' : 'Under way:'} ${going} of` : captures ? 'Captured' : 'Done'}
        <span class="small-label">{jobs.length}</span>
      </Button>
      <Button
        small
        look="quiet"
        onclick={() => jobs.filter(settled).forEach((j) => void actOn(j.id, 'dismiss'))}>Put away</Button
      >
    </header>
    {#if !folded}
      <ul>
        {#each jobs as job (job.id)}
          {@const given = givenTo(job)}
          <li data-state={job.state}>
            {#snippet putAway(still: boolean)}
              {#if still}<Button small look="quiet" onclick={() => actOn(job.id, 'dismiss')}>Put away</Button
                >{/if}
            {/snippet}
            {#if isGoing(job)}
              <div class="given">{given}</div>
              <JobGoing {job} width="70px" />
            {:else if job.state === 'failed'}
              <div class="given">{given}</div>
              <p class="pencil-red">{[job.error?.message, ...(job.error?.details ?? [])].join(' ')}</p>
              <div class="line">
                <Button small onclick={() => actOn(job.id, 'retry')}>Try again</Button>
                {#if job.kind === 'capture'}<Button small onclick={() => byHand(job)}>Start by hand</Button
                  >{/if}
                {@render putAway(true)}
              </div>
            {:else if job.kind === 'capture'}
              <CaptureOutcome {job} ways={putAway} />
            {:else if job.kind === 'recognise'}
              {@const { copyId, passages } = job.result as RecognisedAgain}
              <a class="link" href="/copies/{copyId}">The text of the scanned pages is recognised</a>
              {#if passages.lost}<p class="pencil-red">
                  {many(passages.lost)} of its passages are not in the new text.
                </p>{/if}
            {:else if job.kind === 'borrowed'}
              {@const { total } = job.result as BorrowedInBrief}
              <a class="link" href="/draft?beside=checks"
                >{total
                  ? `The draft has ${total === 1 ? 'one run' : `${many(total)} runs`} of words of kept documents: see Checks`
                  : 'The draft has no words of kept documents that are not quoted'}</a
              >
            {:else if job.kind === 'many'}
              {@const { changed, stays } = job.result as ManyResult}
              <div class="given">
                {changed ? manyIn(job.input as ManyInput).done(changed) : 'There was nothing to change.'}
              </div>
              {#if stays}<p class="small-label">Changed since, and left as it is: {stays.join('; ')}</p>{/if}
              <div class="line">
                {#if changed}<Button small onclick={() => undoMany(job)}>Undo</Button>{/if}
                {@render putAway(true)}
              </div>
            {:else if job.kind === 'doubles'}
              {@const { looked, groups } = job.result as PassResult}
              <a class="link" href="/duplicates"
                >{many(looked)} looked through: {groups === 1 ? '1 group' : `${many(groups)} groups`}</a
              >
            {:else}
              {@const report = job.result as ImportInBrief}
              {#if report.kind === 'asks'}
                <div class="given">{given}</div>
                <p class="pencil-blue">
                  {many(report.here)} of {many(report.total)} are here already. Nothing is added yet.
                </p>
                <div class="line"><Button small href="/import">Say what to do</Button></div>
              {:else}
                <a class="link" href="/import"
                  >{[
                    `${many(report.added)} added`,
                    ...(report.merged ? [`${many(report.merged)} merged`] : []),
                  ].join(', ')} from {given}</a
                >
                {#if report.skipped}<p class="pencil-red">
                    {many(report.skipped)} skipped: see the report.
                  </p>{/if}
              {/if}
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}

<style>
  .tray {
    flex: 2 1 320px;
    align-self: stretch;
    min-width: 0;
    border-top: 1px solid var(--rule);
    background: var(--side);
    font-size: 13px;
  }
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    padding: 2px 12px 2px 26px;
  }
  header :global(.title) {
    font-weight: 650;
    cursor: pointer;
  }
  ul {
    max-height: min(22vh, 132px);
    overflow-y: auto;
    border-top: 1px solid var(--rule);
  }
  li {
    display: grid;
    gap: 4px;
    padding: 6px 12px 6px 26px;
    overflow: hidden;
  }
  li + li {
    border-top: 1px solid var(--rule);
  }
  .given {
    overflow: hidden;
    color: var(--ink-2);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .line {
    display: flex;
    align-items: center;
    gap: 8px;
  }
</style>
