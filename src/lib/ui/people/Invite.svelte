<script lang="ts">
  import { invitationWords, memberWords } from '$lib/core/forms';
  import { INVITED_AS, ROLE_WORDS } from '$lib/core/members';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { done } from '../frame/toasts.svelte';
  import { Button, Field, Input, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  /** Asks somebody in: by a link, or by name where they have an account here. */
  let { library }: { library: string } = $props();
  let link = $state<{ address: string; name: string }>();

  const byLink = formOf(
    invitationWords,
    { role: 'annotator' as (typeof INVITED_AS)[number], name: '', days: 7 },
    async (said) => {
      const { secret } = await call<{ secret: string }>('POST', '/api/invitations', said);
      link = { address: `${location.origin}/invited/${secret}`, name: said.name };
      said.name = '';
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
    <p class="role">{ROLE_WORDS[$linkForm.role].name}: {ROLE_WORDS[$linkForm.role].may}.</p>
    <div><Button look="main" type="submit">Make the link</Button></div>
    {#if link}<HandedOver
        address={link.address}
        words="For {link.name}. It is shown this once: copy it and send it to them."
      />{/if}
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
