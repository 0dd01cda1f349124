import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';
import type { LiveEvent } from '$lib/server/events';
import { debounce } from './client';

type JobStep = Extract<LiveEvent, { kind: 'job' }>['job'];

/** The last step heard of each running job, by job id. */
export const steps = $state<Record<string, JobStep>>({});

/** What pages that show data of the library depend on. */
export const DATA = 'retexa:data';

/** Follows what happens in the library and renews what the page shows. Gives the function that stops. */
export function follow(): () => void {
  // Renewing the data while the page is on its way to another would call that journey off.
  const renew = debounce(() => {
    if (navigating.complete) void navigating.complete.catch(() => undefined).then(renew);
    else void invalidate(DATA);
  }, 60);
  let source: EventSource | undefined;
  let wasDown = false;
  const open = () => {
    source?.close();
    source = new EventSource('/api/events');
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
  };
  // A page the browser keeps for going back would hold its connection, and there are only six for a host.
  const shut = () => {
    source?.close();
    wasDown = true;
  };
  open();
  window.addEventListener('pagehide', shut);
  const back = (event: PageTransitionEvent) => event.persisted && open();
  window.addEventListener('pageshow', back);
  return () => {
    source?.close();
    window.removeEventListener('pagehide', shut);
    window.removeEventListener('pageshow', back);
  };
}
