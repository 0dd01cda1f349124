<script lang="ts">
  import { Button, Progress } from '../kit';
  import type { Job } from '$lib/server/jobs';
  import { steps } from '../frame/live.svelte';
  import { actOn, givenTo } from './jobs';

  /** How far a job is, with the way to stop it. */
  let { job, width = '140px' }: { job: Job; width?: string } = $props();
  const step = $derived(steps[job.id]);
</script>

<div class="flex items-center gap-2">
  <Progress {width} label={givenTo(job)} total={step?.total} done={step?.done} />
  <span class="small-label min-w-0 tabular-nums" role="status"
    >{job.state === 'waiting' ? 'Waits for its turn' : (step?.step ?? 'Starting')}</span
  >
  <Button small look="quiet" onclick={() => actOn(job.id, 'cancel')}>Stop</Button>
</div>
