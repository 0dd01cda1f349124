import { invalidate } from '$app/navigation';
import type { LiveEvent } from '$lib/server/events';
import { debounce } from './client';

type JobStep = Extract<LiveEvent, { kind: 'job' }>['job'];

/** The last step heard of each running job, by job id. */
export const steps = $state<Record<string, JobStep>>({});

/** What pages that show data of the library depend on. */
export const DATA = 'retexa:data';

/** Follows what happens in the library and renews what the page shows. Gives the function that stops. */
export function follow(): () => void {
  const renew = debounce(() => void invalidate(DATA), 60);
  const source = new EventSource('/api/events');
  let wasDown = false;
  source.onmessage = (message) => {
    const event = JSON.parse(String(message.data)) as LiveEvent;
    if (event.kind === 'job') steps[event.job.id] = event.job;
    else renew();
  };
  source.onerror = () => (wasDown = true);
  source.onopen = () => {
    if (wasDown) renew();
    wasDown = false;
  };
  return () => source.close();
}
