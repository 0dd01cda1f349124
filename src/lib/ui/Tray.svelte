<script lang="ts">
  import { recognise } from '$lib/core/source';
  import type { Job } from '$lib/server/repositories/jobs';
  import type { CaptureInput, CaptureResult } from '$lib/server/services/capture';
  import type { ImportInput, ImportReport } from '$lib/server/services/references';
  import { openByHand } from './byhand.svelte';
  import { call } from './client';
  import { steps } from './live.svelte';
  import { attempt, done } from './toasts.svelte';

  /** Captures and imports under way or just ended; it stays while one keeps reading. */
  let { jobs }: { jobs: Job[] } = $props();

  let folded = $state(false);
  const going = $derived(jobs.filter((j) => j.state === 'running' || j.state === 'waiting').length);

  /** Something to read: it takes the room for it. Otherwise it keeps beside the path, out of the way of the work. */
  const wide = $derived(
    jobs.some(
      (j) =>
        j.state === 'failed' ||
        (j.kind === 'capture' && j.state === 'done' && (captured(j).doubles.length || captured(j).note)),
    ),
  );

  const act = (job: Job, what: string) =>
    attempt(() => call<{ revisions?: string[] }>('POST', `/api/jobs/${job.id}`, { act: what }));
  const given = (job: Job) =>
    job.kind === 'capture' ? (job.input as CaptureInput).text : (job.input as ImportInput).fileName;
  const captured = (job: Job) => job.result as CaptureResult;

  async function undoCapture(job: Job) {
    const made = await attempt(() =>
      call<{ revisions: string[] }>('POST', '/api/sources/bin', {
        ids: [captured(job).sourceId],
        binned: true,
      }),
    );
    if (!made) return;
    await act(job, 'dismiss');
    done('The capture is in the bin.', made.revisions);
  }

  function byHand(job: Job) {
    const what = recognise(given(job));
    openByHand(
      what.kind === 'address'
        ? { URL: what.address }
        : what.kind === 'doi'
          ? { DOI: what.doi }
          : { title: given(job) },
    );
    void act(job, 'dismiss');
  }
</script>

{#if jobs.length}
  <section class="tray" class:wide aria-label="Captures">
    <header>
      <button class="title" onclick={() => (folded = !folded)} aria-expanded={!folded}>
        {going ? `Capturing ${going}` : 'Captured'}
        <span class="small-label">{jobs.length}</span>
      </button>
      <button
        class="btn quiet small"
        onclick={() =>
          jobs
            .filter((j) => j.state === 'done' || j.state === 'failed')
            .forEach((j) => void act(j, 'dismiss'))}>Put away</button
      >
    </header>
    {#if !folded}
      <ul>
        {#each jobs as job (job.id)}
          <li data-state={job.state}>
            {#if job.state === 'running' || job.state === 'waiting'}
              <div class="given">{given(job)}</div>
              <div class="line">
                <progress
                  max={steps[job.id]?.total ?? 1}
                  value={steps[job.id]?.total ? steps[job.id]?.done : undefined}
                ></progress>
                <span class="small-label"
                  >{job.state === 'waiting' ? 'Waiting' : (steps[job.id]?.step ?? 'Starting')}</span
                >
                {#if job.kind === 'capture' && job.state === 'running'}<button
                    class="btn quiet small"
                    onclick={() => act(job, 'cancel')}>Stop</button
                  >{/if}
              </div>
            {:else if job.state === 'failed'}
              <div class="given">{given(job)}</div>
              <p class="pencil-red">{job.error?.message}</p>
              <div class="line">
                {#if job.kind === 'capture'}
                  <button class="btn small" onclick={() => act(job, 'retry')}>Try again</button>
                  <button class="btn small" onclick={() => byHand(job)}>Start by hand</button>
                {/if}
                <button class="btn quiet small" onclick={() => act(job, 'dismiss')}>Put away</button>
              </div>
            {:else if job.kind === 'capture'}
              <div class="line spread">
                <a class="got" href="/intake?at={captured(job).sourceId}">{captured(job).label}</a>
                <button class="btn quiet small" onclick={() => undoCapture(job)}>Undo</button>
              </div>
              {#each captured(job).doubles.slice(0, 2) as double (double.id)}
                <p class="pencil-blue">
                  Looks like one you have: {double.label} ({double.reason}).
                  <a class="link" href="/duplicates?a={double.id}&b={captured(job).sourceId}">Compare</a>
                </p>
              {/each}
              {#if captured(job).note}<p class="small-label">{captured(job).note}</p>{/if}
            {:else}
              {@const report = job.result as ImportReport}
              <div class="line spread">
                <a class="got" href="/import">{report.added.length} added from {report.fileName}</a>
              </div>
              {#if report.skipped.length}<p class="pencil-red">
                  {report.skipped.length} skipped: see the report.
                </p>{/if}
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}

<style>
  .tray {
    position: fixed;
    z-index: 35;
    bottom: 8px;
    left: 8px;
    width: 160px;
    border: 1px solid var(--edge);
    border-radius: 10px;
    background: var(--page);
    box-shadow: 0 8px 28px rgb(0 0 0 / 16%);
    font-size: 13px;
  }
  .wide {
    width: min(340px, calc(100vw - 16px));
  }
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    padding: 4px 4px 4px 11px;
  }
  .title {
    font-weight: 650;
    cursor: pointer;
  }
  ul {
    max-height: 44vh;
    overflow-y: auto;
    border-top: 1px solid var(--rule);
  }
  li {
    display: grid;
    gap: 4px;
    padding: 7px 11px;
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
  progress {
    width: 70px;
    height: 5px;
    accent-color: var(--thread);
  }
</style>
