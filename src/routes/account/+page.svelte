<script lang="ts">
  import { accountChange, phraseChange } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { renew } from '$lib/ui/frame/live.svelte';
  import { done } from '$lib/ui/frame/toasts.svelte';
  import { Button, PageHead } from '$lib/ui/kit';
  import AccountField from '$lib/ui/people/AccountField.svelte';
  import CloseAccount from '$lib/ui/people/CloseAccount.svelte';
  import Codes from '$lib/ui/people/Codes.svelte';
  import Passkeys from '$lib/ui/people/Passkeys.svelte';
  import Sessions from '$lib/ui/people/Sessions.svelte';
  import Tokens from '$lib/ui/people/Tokens.svelte';

  let { data } = $props();

  const about = formOf(
    accountChange,
    // svelte-ignore state_referenced_locally
    { ...data.account, phrase: '' },
    async (said) => {
      await call('PATCH', '/api/account', said);
      said.phrase = '';
      await renew('members');
      done('Your account is changed.');
    },
  );
  const { form, errors, enhance } = about;
  const anew = formOf(phraseChange, { phrase: '', next: '' }, async (said) => {
    await call('PATCH', '/api/account', said);
    said.phrase = said.next = '';
    await renew('members');
    done('The pass phrase is changed; all other sessions are ended.');
  });
  const { form: phrases, errors: phraseErrors, enhance: change } = anew;
</script>

<svelte:head><title>Account · Retexa</title></svelte:head>

<PageHead>
  <h1>Account</h1>
  <span class="sub">{data.account.name}, {data.account.mail}</span>
</PageHead>

<div class="view">
  <div class="two">
    <form method="POST" use:enhance aria-label="Name and mail address">
      <h2>Name and mail address</h2>
      <AccountField label="What you are called" fills="name" bind:value={$form.name} errors={$errors.name} />
      <AccountField label="Mail address" fills="username" bind:value={$form.mail} errors={$errors.mail} />
      <AccountField
        label="Pass phrase, to be sure it is you"
        fills="current-password"
        bind:value={$form.phrase}
        errors={$errors.phrase}
      />
      <div><Button type="submit">Keep the changes</Button></div>
    </form>
    <form method="POST" use:change aria-label="Pass phrase">
      <h2>Pass phrase</h2>
      <AccountField
        label="The one there is"
        fills="current-password"
        bind:value={$phrases.phrase}
        errors={$phraseErrors.phrase}
      />
      <AccountField
        label="The new one, 12 characters or more"
        fills="new-password"
        bind:value={$phrases.next}
        errors={$phraseErrors.next}
      />
      <div><Button type="submit">Change it</Button></div>
    </form>
  </div>
  <Passkeys passkeys={data.passkeys} />
  <Codes on={data.codes} />
  <Sessions sessions={data.sessions} />
  <Tokens tokens={data.tokens} library={data.library} />
  <CloseAccount />
</div>

<style>
  .view {
    max-width: 900px;
    padding: 18px 26px 60px;
  }
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
  .view :global(h2) {
    margin-bottom: 4px;
    font-size: 16px;
    font-weight: 700;
  }
  .view > :global(section) {
    padding-top: 26px;
  }
  .view > :global(section p) {
    color: var(--ink-2);
    font-size: 14px;
  }
  .view > :global(section form) {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
    margin-top: 12px;
  }
</style>
