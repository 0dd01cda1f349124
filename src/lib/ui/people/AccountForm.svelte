<script lang="ts">
  import { accountWords } from '$lib/core/forms';
  import { formOf } from '../frame/forms';
  import { Button, Field, Input } from '../kit';

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
  <Field label="What you are called" errors={$errors.name}>
    {#snippet children(attributes)}<Input
        autocomplete="name"
        bind:value={$form.name}
        {...attributes}
      />{/snippet}
  </Field>
  <Field label="Mail address" errors={$errors.mail}>
    {#snippet children(attributes)}<Input
        type="email"
        autocomplete="username"
        bind:value={$form.mail}
        {...attributes}
      />{/snippet}
  </Field>
  <Field label="Pass phrase, 12 characters or more" errors={$errors.phrase}>
    {#snippet children(attributes)}<Input
        type="password"
        autocomplete="new-password"
        bind:value={$form.phrase}
        {...attributes}
      />{/snippet}
  </Field>
  <div><Button look="main" type="submit" disabled={$submitting}>{text}</Button></div>
</form>
