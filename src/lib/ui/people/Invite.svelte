<script lang="ts">
  import { invitationWords, memberWords } from '$lib/core/forms';
  import { INVITED_AS, ROLE_WORDS } from '$lib/core/members';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { done } from '../frame/toasts.svelte';
  import { Button, Field, Input, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  /** Asks somebody in: by a link, or by name where they have an account here. */
  let { library, mails }: { library: string; mails: boolean } = $props();
  let link = $state<{ address: string; words: string }>();

  const byLink = formOf(
    invitationWords,
    { role: 'annotator' as (typeof INVITED_AS)[number], name: '', days: 7, mail: '' },
    async (said) => {
      const { secret, mailed } = await call<{ secret: string; mailed?: boolean }>(
        'POST',
        '/api/invitations',
        said,
      );
      link = {
        address: `${location.origin}/invited/${secret}`,
        words: mailed
          ? `It was sent to ${said.mail}. It is shown this once.`
          : `${mailed === false ? `The mail to ${said.mail} was not taken. ` : ''}For ${said.name}. It is shown this once: copy it and send it to them.`,
      };
      said.name = said.mail = '';
    },
  );
  const { form: linkForm, errors: linkErrors, enhance: linkEnhance } = byLink;

  const byName = formOf(
    memberWords,
    { mail: '', role: 'annotator' as (typeof INVITED_AS)[number] },
    async (said) => {
      await call('POST', '/api/members', said);
      done(`${said.mail} is in ${library} now.`);
      said.mail = '';
    },
  );
  const { form: nameForm, errors: nameErrors, enhance: nameEnhance } = byName;
</script>

{#snippet roles()}
  {#each INVITED_AS as role (role)}<option value={role}>{ROLE_WORDS[role].name}</option>{/each}
{/snippet}

<div class="two">
  <form method="POST" use:linkEnhance aria-label="Invite by a link">
    <h3>By a link</h3>
    <p>It lets one person in, once, and makes an account with them.</p>
    <Field label="Whom it is for" errors={$linkErrors.name}>
      {#snippet children(attributes)}<Input bind:value={$linkForm.name} {...attributes} />{/snippet}
    </Field>
    <div class="line">
      <label
        ><span class="small-label">As</span><Select bind:value={$linkForm.role}>{@render roles()}</Select
        ></label
      >
      <label
        ><span class="small-label">Good for</span><Select
          bind:value={() => String($linkForm.days), (days) => ($linkForm.days = Number(days))}
        >
          {#each [1, 7, 30, 90] as days (days)}<option value={String(days)}
              >{days === 1 ? 'a day' : `${days} days`}</option
            >{/each}
        </Select></label
      >
    </div>
    {#if mails}
      <Field label="Their mail address, where the link is sent; or none" errors={$linkErrors.mail}>
        {#snippet children(attributes)}<Input
            type="email"
            bind:value={$linkForm.mail}
            {...attributes}
          />{/snippet}
      </Field>
    {/if}
    <p class="role">{ROLE_WORDS[$linkForm.role].name}: {ROLE_WORDS[$linkForm.role].may}.</p>
    <div>
      <Button look="main" type="submit"
        >{$linkForm.mail ? 'Make the link and send it' : 'Make the link'}</Button
      >
    </div>
    {#if link}<HandedOver address={link.address} words={link.words} />{/if}
  </form>
  <form method="POST" use:nameEnhance aria-label="Add by mail address">
    <h3>By name</h3>
    <p>For somebody who has an account on this server.</p>
    <Field label="Their mail address" errors={$nameErrors.mail}>
      {#snippet children(attributes)}<Input
          type="email"
          bind:value={$nameForm.mail}
          {...attributes}
        />{/snippet}
    </Field>
    <label class="as"
      ><span class="small-label">As</span><Select bind:value={$nameForm.role}>{@render roles()}</Select
      ></label
    >
    <p class="role">{ROLE_WORDS[$nameForm.role].name}: {ROLE_WORDS[$nameForm.role].may}.</p>
    <div><Button type="submit">Add them</Button></div>
  </form>
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
    gap: 22px 34px;
  }
  form {
    display: grid;
    gap: 11px;
    align-content: start;
  }
  .as {
    max-width: 170px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
  }
  h3 {
    font-size: 14.5px;
    font-weight: 650;
  }
  p {
    color: var(--ink-2);
    font-size: 13.5px;
  }
</style>
