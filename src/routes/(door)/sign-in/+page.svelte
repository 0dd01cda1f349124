<script lang="ts">
  import { browserSupportsWebAuthn, startAuthentication } from '@simplewebauthn/browser';
  import { onMount } from 'svelte';
  import { signInWords } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { attempt } from '$lib/ui/frame/toasts.svelte';
  import { Button } from '$lib/ui/kit';
  import { keyAnswer } from '$lib/ui/people/keys';
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
  let able = $state(false);
  onMount(() => (able = browserSupportsWebAuthn()));
  let asking = $state(false);
  async function byKey() {
    asking = true;
    const made = await attempt(async () => {
      const { offer, options } = await call<{
        offer: string;
        options: Parameters<typeof startAuthentication>[0]['optionsJSON'];
      }>('POST', '/api/door/passkey', { act: 'ask' });
      const answer = await keyAnswer(() => startAuthentication({ optionsJSON: options }));
      await call('POST', '/api/door/passkey', { act: 'sign in', offer, answer });
      return true;
    });
    asking = false;
    if (made) location.assign(data.to);
  }
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
  {#if data.passkeys && able}
    <p class="mt-4"><Button onclick={byKey} disabled={asking}>Sign in with a passkey</Button></p>
  {/if}
  <p class="mt-5">
    The pass phrase is forgotten?
    {#if data.mails}<a class="link" href="/forgotten">Have a way back in sent to you</a>, or ask whoever keeps
      this server.
    {:else}Whoever keeps this server can give you a way back in.{/if}
    An account comes with an invitation to a library.
  </p>
</Door>
