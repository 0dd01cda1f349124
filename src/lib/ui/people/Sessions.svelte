<script lang="ts">
  import type { SessionShown } from '$lib/server/accounts';
  import { call } from '../frame/client';
  import { timeLabel } from '../frame/dates';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import Lines from './Lines.svelte';
  import { Button } from '../kit';

  /** Where one is signed in. */
  let { sessions }: { sessions: SessionShown[] } = $props();

  /** What a browser calls itself, in two words where it can be told (RFC 9110, 10.1.5). */
  const named = (agent: string) => {
    // Each calls itself what came before it too: the newest name counts.
    const browser = ['Edg', 'OPR', 'Firefox', 'Chrome', 'Safari'].find((one) => agent.includes(`${one}/`));
    const on = /\((?:X11; )?(Windows|Macintosh|Linux|Android|iPhone|iPad)/.exec(agent)?.[1];
    return browser
      ? `${browser === 'Edg' ? 'Edge' : browser}${on ? ` on ${on}` : ''}`
      : agent.slice(0, 60) || 'A program';
  };
  const end = (session: string, said: string) =>
    attempt(async () => {
      await call('DELETE', '/api/account', { session });
      await renew('members');
      done(said);
    });
</script>

<section aria-labelledby="sessions">
  <h2 id="sessions">Where you are signed in</h2>
  <Lines>
    {#each sessions as one (one.id)}
      <li>
        <span
          >{named(one.agent)}, from {one.address}
          <span class="sub">{one.here ? 'this browser' : `last seen ${timeLabel(one.seen)}`}</span></span
        >
        {#if !one.here}<Button small onclick={() => end(one.id, 'The session is ended.')}>End it</Button>{/if}
      </li>
    {/each}
  </Lines>
  {#if sessions.length > 1}
    <div class="mt-3">
      <Button onclick={() => end('others', 'All other sessions are ended.')}>End all others</Button>
    </div>
  {/if}
</section>
