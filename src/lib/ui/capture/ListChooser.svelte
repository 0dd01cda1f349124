<script lang="ts">
  import { Button, Checkbox, Dialog } from '../kit';
  import { TYPE_LABELS } from '$lib/core/source';
  import type { Job } from '$lib/server/jobs';
  import type { CaptureResult } from '$lib/server/capture';

  interface Props {
    job: Job;
    onclose: () => void;
    onchoose: (picks: number[]) => void;
  }
  let { job, onclose, onchoose }: Props = $props();
  const works = $derived((job.result as Extract<CaptureResult, { kind: 'list' }>).works);
  let open = $state(true);
  /** Those in the library already start unticked. */
  // svelte-ignore state_referenced_locally
  let picked = $state(works.map((w) => !w.here));
  const count = $derived(picked.filter(Boolean).length);
  const all = (value: boolean) => (picked = works.map(() => value));
</script>

<Dialog bind:open title="Works on this page" size="lg" {onclose}>
  <div class="flex items-center gap-3">
    <Button small onclick={() => all(true)}>Tick all</Button>
    <Button small onclick={() => all(false)}>Tick none</Button>
    <span class="small-label"
      >{count} of {works.length} ticked. Each is fetched and read; one job, which you can stop.</span
    >
  </div>
  <ul class="works">
    {#each works as work, i (i)}
      <li>
        <label>
          <Checkbox bind:checked={picked[i]} />
          <span class="what">
            <span class="serif title">{work.title}</span>
            <span class="small-label"
              >{[work.who, work.year, work.type === 'document' ? '' : TYPE_LABELS[work.type]]
                .filter(Boolean)
                .join(' · ')}</span
            >
          </span>
          {#if work.here}<span class="pencil-blue here">you have this</span>{/if}
        </label>
      </li>
    {/each}
  </ul>
  <div class="flex items-center gap-3">
    <Button
      look="main"
      disabled={count === 0}
      onclick={() => onchoose(picked.flatMap((p, i) => (p ? [i] : [])))}
      >{count === 1 ? 'Capture one' : `Capture ${count}`}</Button
    >
    <Button look="quiet" onclick={() => (open = false)}>Not now</Button>
  </div>
</Dialog>

<style>
  .works {
    max-height: 46vh;
    overflow-y: auto;
    border: 1px solid var(--rule);
    border-radius: 7px;
  }
  li + li {
    border-top: 1px solid var(--rule);
  }
  label {
    display: flex;
    align-items: baseline;
    gap: 12px;
    padding: 7px 12px;
    cursor: pointer;
  }
  label:hover {
    background: var(--row-chosen);
  }
  .what {
    display: grid;
    flex: 1;
  }
  .title {
    font-size: 15px;
    line-height: 1.35;
  }
  .here {
    font-size: 12px;
    white-space: nowrap;
  }
</style>
