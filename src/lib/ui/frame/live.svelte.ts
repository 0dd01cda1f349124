import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';
import { SvelteMap } from 'svelte/reactivity';
import type { LiveEvent, Topic } from '$lib/server/access/events';
import { changed, debounce, PAGE, reached } from './client';

type JobStep = Extract<LiveEvent, { kind: 'job' }>['job'];

/** The last step heard of each running job, by job id. */
export const steps = $state<Record<string, JobStep>>({});

/** Who looks at sources now, as far as it was heard: ids of people, by source. */
export const here = new SvelteMap<string, string[]>();

/** Whether the server answers. */
export const server = $state({ reached: true });

/** Waiting for the server, each to be told when it answers again. */
const awaiting: (() => void)[] = [];

/** When the server answers again; at once when it does. */
export const untilReached = (): Promise<void> =>
  server.reached ? Promise.resolve() : new Promise((resolve) => awaiting.push(resolve));

const setReached = (yes: boolean) => {
  server.reached = yes;
  if (!yes) return;
  for (const tell of awaiting.splice(0)) tell();
};

/** What data of a topic depends on, in loads. */
export const keyOf = (topic: Topic) => `retexa:${topic}` as const;

/** What is to be renewed, gathered until it is done. */
// eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing on the page shows it
let waiting = new Set<string>();
let renewing: Promise<void> = Promise.resolve();

const renewNow = async () => {
  // Renewing the data while the page is on its way to another would call that journey off.
  if (navigating.complete) await navigating.complete.catch(() => undefined);
  const keys = waiting;

  waiting = new Set();
  if (keys.size === 0) return;
  await invalidate(
    ({ href, protocol }) => keys.has(href) || (keys.has('retexa:*') && protocol === 'retexa:'),
  );
};
const soon = debounce(() => void (renewing = renewNow()), 60);

/** Renews what depends on topics (`*` for all of them), at once; gives when the page has it. What was asked for meanwhile is renewed with it. */
export function renew(...topics: string[]): Promise<void> {
  for (const topic of topics) waiting.add(`retexa:${topic}`);
  renewing = renewing.then(renewNow);
  return renewing;
}

/** When what this page changed is on the page. */
export const renewed = (): Promise<void> => renewing;

/** Those who listen for topics themselves. */
const listeners: Partial<Record<Topic, (() => void)[]>> = {};

/** Calls when another page changed something of a topic, or when that cannot be known. Gives the function that stops. */
export function heard(topic: Topic, tell: () => void): () => void {
  listeners[topic] = [...(listeners[topic] ?? []), tell];
  return () => void (listeners[topic] = listeners[topic]?.filter((other) => other !== tell) ?? []);
}

function hear(event: LiveEvent): void {
  if (event.kind === 'job') steps[event.job.id] = event.job;
  else if (event.kind === 'here') here.set(event.source, event.people);
  else if (event.by !== PAGE) {
    for (const topic of event.of) {
      waiting.add(keyOf(topic));
      for (const tell of listeners[topic] ?? []) tell();
    }
    soon();
  }
}

/** Everything anew: after a time in which nothing was heard. */
const everything = () => {
  for (const all of Object.values(listeners)) for (const tell of all) tell();
  void renew('*');
};

const CHANNEL = 'retexa-live';
type Passed =
  { kind: 'event'; event: LiveEvent } | { kind: 'reached'; yes: boolean } | { kind: 'everything' };

/**
 * Follows what happens in the library and renews what the page shows. Of all tabs of a browser one listens and passes on
 * what it hears, since a browser has few connections to a server; when it is closed another takes over. Gives the
 * function that stops.
 */
export function follow(): () => void {
  changed.tell = (topics) => void renew(...topics);
  let source: EventSource | undefined;
  let stopped = false;
  const channel = new BroadcastChannel(CHANNEL);
  const pass = (passed: Passed) => channel.postMessage(passed);
  channel.onmessage = ({ data }: MessageEvent<Passed>) => {
    if (data.kind === 'event') hear(data.event);
    else if (data.kind === 'everything') everything();
    else setReached(data.yes);
  };
  const reach = (yes: boolean) => {
    if (server.reached === yes) return;
    setReached(yes);
    pass({ kind: 'reached', yes });
    if (yes) everything();
    else probe();
  };
  // A request that failed says nothing of the next: the server is asked until it answers.
  const probe = () => {
    if (stopped || server.reached) return;
    void fetch('/reading.css', { method: 'HEAD', cache: 'no-store' }).then(
      () => reach(true),
      () => setTimeout(probe, 1_000),
    );
  };
  reached.tell = reach;

  let wasDown = false;
  const listen = () => {
    source?.close();
    source = new EventSource('/api/events');
    source.onmessage = (message) => {
      const event = JSON.parse(String(message.data)) as LiveEvent;
      hear(event);
      pass({ kind: 'event', event });
    };
    source.onerror = () => {
      wasDown = true;
      reach(false);
      // A browser gives up when the answer is not what it should be; a server that comes back is asked again.
      if (source?.readyState === EventSource.CLOSED && !stopped) setTimeout(listen, 2_000);
    };
    source.onopen = () => {
      reach(true);
      if (wasDown) {
        everything();
        pass({ kind: 'everything' });
      }
      wasDown = false;
    };
  };

  // The one that holds the lock listens. It is given on when the page goes, or is put aside for going back.
  let giveUp = () => {};
  const lead = () => {
    const { locks } = navigator;
    if (!locks) return listen();
    void locks
      .request(CHANNEL, () => {
        if (stopped) return;
        listen();
        return new Promise<void>((resolve) => (giveUp = resolve));
      })
      .catch(() => undefined);
  };
  const shut = () => {
    source?.close();
    source = undefined;
    giveUp();
    wasDown = true;
  };
  lead();
  window.addEventListener('pagehide', shut);
  const back = (event: PageTransitionEvent) => {
    if (!event.persisted) return;
    everything();
    lead();
  };
  window.addEventListener('pageshow', back);
  return () => {
    stopped = true;
    shut();
    channel.close();
    window.removeEventListener('pagehide', shut);
    window.removeEventListener('pageshow', back);
  };
}
