<script lang="ts">
  import { signInWords } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { Button, Field, Input } from '$lib/ui/kit';
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
    <Field label="Mail address" errors={$errors.mail}>
      {#snippet children(attributes)}<Input
          type="email"
          autocomplete="username"
          autofocus
          bind:value={$form.mail}
          {...attributes}
        />{/snippet}
    </Field>
    <Field label="Pass phrase" errors={$errors.phrase}>
      {#snippet children(attributes)}<Input
          type="password"
          autocomplete="current-password"
          bind:value={$form.phrase}
          {...attributes}
        />{/snippet}
    </Field>
    {#if coded}
      <Field label="Code of your app" errors={$errors.code}>
        {#snippet children(attributes)}<Input
            inputmode="numeric"
            autocomplete="one-time-code"
            autofocus
            bind:value={$form.code}
            {...attributes}
          />{/snippet}
      </Field>
    {/if}
    <div><Button look="main" type="submit" disabled={$submitting}>Sign in</Button></div>
  </form>
  <p class="mt-5">
    The pass phrase is forgotten? Whoever keeps this server can give you a way back in. An account comes with
    an invitation to a library.
  </p>
</Door>
