<script lang="ts">
  import { Button, Progress } from '../kit';
  import type { Job } from '$lib/server/jobs';
  import type { CaptureInput, CaptureResult } from '$lib/server/capture';
  import type { ImportInBrief, ImportInput } from '$lib/server/imports';
  import { byHandFrom } from './byhand.svelte';
  import { call } from '../frame/client';
  import ListChooser from './ListChooser.svelte';
  import { steps } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { page } from '$app/state';

  /** Captures and imports under way or just ended; it stays while one keeps reading. */
  let { jobs: all }: { jobs: Job[] } = $props();

  // The import's own page shows its jobs itself, and more room than the tray has.
  const jobs = $derived(page.url.pathname === '/import' ? all.filter((j) => j.kind !== 'import') : all);

  // On a narrow screen it is a line that opens.
  let folded = $state(globalThis.matchMedia?.('(max-width: 760px)').matches ?? false);
  const going = $derived(jobs.filter((j) => j.state === 'running' || j.state === 'waiting').length);

  let choosing = $state<Job | undefined>();

  const act = (job: Job, what: string | { act: string; sourceId?: string; picks?: number[] }) =>
    attempt(() =>
      call<{ revisions?: string[] }>(
        'POST',
        `/api/jobs/${job.id}`,
        typeof what === 'string' ? { act: what } : what,
      ),
    );
  const given = (job: Job) =>
    job.kind === 'capture' ? (job.input as CaptureInput).text : (job.input as ImportInput).fileName;
  const captured = (job: Job) => job.result as CaptureResult;

  async function undoCapture(job: Job, ids: string[]) {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids, binned: true }),
    );
    if (!made) return;
    await act(job, 'dismiss');
    done(
      ids.length === 1 ? 'The capture is in the bin.' : `${ids.length} captures are in the bin.`,
      made.revisions,
    );
  }

  async function takeAway(job: Job) {
    if (await act(job, 'take-away')) done('What was added is taken away again; the source is as it was.');
  }

  function byHand(job: Job) {
    byHandFrom(given(job));
    void act(job, 'dismiss');
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
        {going ? `Capturing ${going} of` : 'Captured'}
        <span class="small-label">{jobs.length}</span>
      </Button>
      <Button small look="quiet" onclick={() => jobs.filter(settled).forEach((j) => void act(j, 'dismiss'))}
        >Put away</Button
      >
    </header>
    {#if !folded}
      <ul>
        {#each jobs as job (job.id)}
          <li data-state={job.state}>
            {#if job.state === 'running' || job.state === 'waiting'}
              <div class="given">{given(job)}</div>
              <div class="line">
                <Progress
                  width="70px"
                  label={given(job)}
                  total={steps[job.id]?.total}
                  done={steps[job.id]?.done}
                />
                <span class="small-label"
                  >{job.state === 'waiting' ? 'Waiting' : (steps[job.id]?.step ?? 'Starting')}</span
                >
                {#if job.state === 'running'}<Button small look="quiet" onclick={() => act(job, 'cancel')}
                    >Stop</Button
                  >{/if}
              </div>
            {:else if job.state === 'failed'}
              <div class="given">{given(job)}</div>
              <p class="pencil-red">{job.error?.message}</p>
              <div class="line">
                {#if job.kind === 'capture'}
                  <Button small onclick={() => act(job, 'retry')}>Try again</Button>
                  <Button small onclick={() => byHand(job)}>Start by hand</Button>
                {/if}
                <Button small look="quiet" onclick={() => act(job, 'dismiss')}>Put away</Button>
              </div>
            {:else if job.kind === 'capture'}
              {@const result = captured(job)}
              {#if result.kind === 'kept'}
                <div class="line spread">
                  <a class="got" href="/intake?at={result.sourceId}">{result.label}</a>
                  {#if !result.toExisting}<Button
                      small
                      look="quiet"
                      onclick={() => (result.added ? takeAway(job) : undoCapture(job, [result.sourceId]))}
                      >Undo</Button
                    >{/if}
                </div>
                {#each result.doubles.slice(0, 2) as double (double.id)}
                  <p class="pencil-blue">
                    Looks like one you have: {double.label} ({double.reason}).
                    <a class="link" href="/duplicates?a={double.id}&b={result.sourceId}">Compare</a>
                  </p>
                {/each}
                {#each result.notes as note (note)}<p class="small-label">{note}</p>{/each}
              {:else if result.kind === 'here'}
                <div class="got">{result.label}</div>
                <p class="pencil-blue">
                  You have this already: {result.doubles[0]?.label} ({result.doubles[0]?.reason}). Nothing is
                  saved yet.
                </p>
                {#each result.notes as note (note)}<p class="small-label">{note}</p>{/each}
                <div class="line wrap">
                  <Button small href="/sources/{result.doubles[0]?.id}">Open it</Button>
                  {#if result.hasCopy}<Button
                      small
                      onclick={() => act(job, { act: 'add-copy', sourceId: result.doubles[0]!.id })}
                      >Add as another copy</Button
                    >{/if}
                  <Button small onclick={() => act(job, 'keep-both')}>Keep both</Button>
                  <Button small look="quiet" onclick={() => act(job, 'dismiss')}>Put away</Button>
                </div>
              {:else if result.kind === 'list'}
                <div class="got">{result.title || given(job)}</div>
                <p class="small-label">A list of {result.works.length} works. Nothing is saved yet.</p>
                <div class="line wrap">
                  <Button small look="main" onclick={() => (choosing = job)}>Choose which to keep</Button>
                  <Button small look="quiet" onclick={() => act(job, 'dismiss')}>Put away</Button>
                </div>
              {:else}
                <div class="line spread">
                  <a class="got" href="/intake">{result.kept.length} captured from a list</a>
                  {#if result.kept.length}<Button
                      small
                      look="quiet"
                      onclick={() =>
                        undoCapture(
                          job,
                          result.kept.map((k) => k.sourceId),
                        )}>Undo</Button
                    >{/if}
                </div>
                {#each result.failed as failure (failure.title + failure.reason)}
                  <p class="small-label">{failure.title}: {failure.reason}</p>
                {/each}
              {/if}
            {:else}
              {@const report = job.result as ImportInBrief}
              {#if report.kind === 'asks'}
                <div class="got">{given(job)}</div>
                <p class="pencil-blue">
                  {report.here.toLocaleString('en')} of {report.total.toLocaleString('en')} are here already. Nothing
                  is added yet.
                </p>
                <div class="line wrap"><Button small href="/import">Say what to do</Button></div>
              {:else}
                <div class="line spread">
                  <a class="got" href="/import"
                    >{[
                      `${report.added.toLocaleString('en')} added`,
                      ...(report.merged ? [`${report.merged.toLocaleString('en')} merged`] : []),
                    ].join(', ')} from {given(job)}</a
                  >
                </div>
                {#if report.skipped}<p class="pencil-red">
                    {report.skipped.toLocaleString('en')} skipped: see the report.
                  </p>{/if}
              {/if}
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}

{#if choosing}
  <ListChooser
    job={choosing}
    onclose={() => (choosing = undefined)}
    onchoose={(picks) => {
      const job = choosing!;
      choosing = undefined;
      void act(job, { act: 'choose', picks });
    }}
  />
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
  .wrap {
    flex-wrap: wrap;
  }
  .spread {
    flex-wrap: wrap;
    justify-content: space-between;
  }
  .got {
    font-family: var(--font-serif);
    overflow: hidden;
    font-size: 14.5px;
    font-weight: 600;
    line-height: 1.3;
    text-overflow: ellipsis;
  }
  .got:hover {
    text-decoration: underline;
  }
</style>
