<script lang="ts">
  import { signInWords } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { Button } from '$lib/ui/kit';
  import AccountField from '$lib/ui/people/AccountField.svelte';
  import Door from '$lib/ui/people/Door.svelte';

  let { data } = $props();
  const { form, errors, enhance, submitting } = formOf(
    signInWords,
    { mail: '', phrase: '', code: '' },
    async (said) => {
      await call('POST', '/api/door/sign-in', said);
      // Nothing of what was loaded for nobody stays.
      location.assign(data.to);
    },
  );
  let coded = $state(false);
  $effect(() => {
    if ($errors.code) coded = true;
  });
</script>

<Door title="Sign in">
  <form method="POST" use:enhance>
    <AccountField
      label="Mail address"
      fills="username"
      bind:value={$form.mail}
      errors={$errors.mail}
      autofocus
    />
    <AccountField
      label="Pass phrase"
      fills="current-password"
      bind:value={$form.phrase}
      errors={$errors.phrase}
    />
    {#if coded}
      <AccountField
        label="Code of your app"
        fills="one-time-code"
        bind:value={$form.code}
        errors={$errors.code}
        autofocus
      />
    {/if}
    <div><Button look="main" type="submit" disabled={$submitting}>Sign in</Button></div>
  </form>
  <p class="mt-5">
    The pass phrase is forgotten? Whoever keeps this server can give you a way back in. An account comes with
    an invitation to a library.
  </p>
</Door>
