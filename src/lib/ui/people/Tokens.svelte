<script lang="ts">
  import type { TokenShown } from '$lib/server/accounts';
  import { tokenWords } from '$lib/core/forms';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { formOf } from '../frame/forms';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import Lines from './Lines.svelte';
  import { Button, Field, Input, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  /** Tokens for the browser companion and for programs: narrow, named, and taken back one by one. */
  let { tokens, library }: { tokens: TokenShown[]; library: string } = $props();
  const MAY = { capture: 'captures only', read: 'reads only', all: 'all that an editor may' } as const;
  let made = $state<{ secret: string; name: string }>();

  const { form, errors, enhance, submitting } = formOf(
    tokenWords,
    { name: '', may: 'capture' as keyof typeof MAY, days: 365 as number | null },
    async (said) => {
      made = { ...(await call<{ secret: string }>('POST', '/api/account/tokens', said)), name: said.name };
      said.name = '';
      await renew('members');
    },
  );
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
  <form method="POST" use:enhance aria-label="New token">
    <Field label="What it is for" errors={$errors.name}>
      {#snippet children(attributes)}<Input bind:value={$form.name} {...attributes} />{/snippet}
    </Field>
    <label
      ><span class="small-label">In {library} it</span><Select bind:value={$form.may}>
        {#each Object.entries(MAY) as [id, words] (id)}<option value={id}>{words}</option>{/each}
      </Select></label
    >
    <label
      ><span class="small-label">Good for</span><Select
        bind:value={() => String($form.days), (days) => ($form.days = Number(days))}
      >
        <option value="30">30 days</option><option value="365">a year</option>
      </Select></label
    >
    <Button type="submit" disabled={$submitting}>Make a token</Button>
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
