<script lang="ts">
  import type { TokenShown } from '$lib/server/accounts';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import Lines from './Lines.svelte';
  import { Button, Field, Input, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  /** Tokens for the browser companion and for programs: narrow, named, and taken back one by one. */
  let { tokens, library }: { tokens: TokenShown[]; library: string } = $props();
  const MAY = { capture: 'captures only', read: 'reads only', all: 'all that an editor may' } as const;
  let name = $state('');
  let may = $state<keyof typeof MAY>('capture');
  let days = $state('365');
  let made = $state<{ secret: string; name: string }>();

  async function make(event: Event) {
    event.preventDefault();
    const got = await attempt(() =>
      call<{ secret: string }>('POST', '/api/account/tokens', { name, may, days: Number(days) }),
    );
    if (!got) return;
    made = { ...got, name };
    name = '';
    await renew('members');
  }
  const drop = ({ id, name }: TokenShown) =>
    attempt(async () => {
      await call('DELETE', '/api/account/tokens', { id });
      await renew('members');
      done(`The token ${name} opens nothing any more.`);
    });
</script>

<section aria-labelledby="tokens">
  <h2 id="tokens">Tokens</h2>
  <p>For the browser companion and for programs. One is for one library, and never says who is in it.</p>
  <Lines>
    {#each tokens as one (one.id)}
      <li>
        <span
          >{one.name}
          <span class="sub"
            >{one.library}, {MAY[one.may]}, {one.used
              ? `last used ${dateLabel(one.used)}`
              : 'not used yet'}{one.expires ? `, until ${dateLabel(one.expires)}` : ''}</span
          ></span
        >
        <Button small aria-label="Take back the token {one.name}" onclick={() => drop(one)}>Take back</Button>
      </li>
    {/each}
  </Lines>
  <form onsubmit={make} aria-label="New token">
    <Field label="What it is for" errors={[]}>
      {#snippet children(attributes)}<Input bind:value={name} {...attributes} />{/snippet}
    </Field>
    <label
      ><span class="small-label">In {library} it</span><Select bind:value={may}>
        {#each Object.entries(MAY) as [id, words] (id)}<option value={id}>{words}</option>{/each}
      </Select></label
    >
    <label
      ><span class="small-label">Good for</span><Select bind:value={days}>
        <option value="30">30 days</option><option value="365">a year</option>
      </Select></label
    >
    <Button type="submit" disabled={!name.trim()}>Make a token</Button>
  </form>
  {#if made}
    <div class="max-w-[560px] mt-3">
      <HandedOver
        address={made.secret}
        what="token"
        words="The token {made.name}, shown this once. A program sends it as Authorization: Bearer and the token."
      />
    </div>
  {/if}
</section>
