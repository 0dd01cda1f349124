<script lang="ts">
  import { newPhrase } from '$lib/core/forms';
  import { call } from '$lib/ui/frame/client';
  import { formOf } from '$lib/ui/frame/forms';
  import { Button } from '$lib/ui/kit';
  import AccountField from '$lib/ui/people/AccountField.svelte';
  import Door from '$lib/ui/people/Door.svelte';

  let { data } = $props();
  const { form, errors, enhance, submitting } = formOf(newPhrase, { phrase: '' }, async ({ phrase }) => {
    await call('POST', '/api/door/way-back', { secret: data.secret, phrase });
    location.assign('/');
  });
</script>

<Door title="A new pass phrase">
  <p>For {data.name}. Where you were signed in, you are signed out then.</p>
  <form method="POST" use:enhance>
    <AccountField
      label="Pass phrase, 12 characters or more"
      fills="new-password"
      bind:value={$form.phrase}
      errors={$errors.phrase}
      autofocus
    />
    <div><Button look="main" type="submit" disabled={$submitting}>Keep it and sign in</Button></div>
  </form>
</Door>
