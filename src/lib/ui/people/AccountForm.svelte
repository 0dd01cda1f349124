<script lang="ts">
  import { accountWords } from '$lib/core/forms';
  import { formOf } from '../frame/forms';
  import { Button } from '../kit';
  import AccountField from './AccountField.svelte';

  interface Props {
    /** What is on the button. */
    text: string;
    name?: string;
    /** Makes the account. */
    make: (said: { name: string; mail: string; phrase: string }) => Promise<unknown>;
  }
  /** What a new account is made of: what one is called, where mail goes, a pass phrase. */
  let { text, name = '', make }: Props = $props();
  // svelte-ignore state_referenced_locally
  const { form, errors, enhance, submitting } = formOf(accountWords, { name, mail: '', phrase: '' }, make);
</script>

<form method="POST" use:enhance>
  <AccountField label="What you are called" fills="name" bind:value={$form.name} errors={$errors.name} />
  <AccountField label="Mail address" fills="username" bind:value={$form.mail} errors={$errors.mail} />
  <AccountField
    label="Pass phrase, 12 characters or more"
    fills="new-password"
    bind:value={$form.phrase}
    errors={$errors.phrase}
  />
  <div><Button look="main" type="submit" disabled={$submitting}>{text}</Button></div>
</form>
