<script lang="ts">
  import { forgottenWords } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { Button } from '$lib/ui/kit';
  import AccountField from '$lib/ui/people/AccountField.svelte';
  import Door from '$lib/ui/people/Door.svelte';

  let sent = $state('');
  const { form, errors, enhance, submitting } = formOf(forgottenWords, { mail: '' }, async (said) => {
    await call('POST', '/api/door/forgotten', said);
    sent = said.mail;
  });
</script>

<Door title="A forgotten pass phrase">
  {#if sent}
    <p role="status">
      If there is an account with {sent}, a mail with the way back in is on its way there. It is good for an
      hour.
    </p>
  {:else}
    <form method="POST" use:enhance>
      <AccountField
        label="Mail address of your account"
        fills="username"
        bind:value={$form.mail}
        errors={$errors.mail}
        autofocus
      />
      <div><Button look="main" type="submit" disabled={$submitting}>Send me a way back in</Button></div>
    </form>
  {/if}
  <p class="mt-5"><a class="link" href="/sign-in">Sign in</a></p>
</Door>
