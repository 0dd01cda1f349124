<script lang="ts">
  import { startRegistration } from '@simplewebauthn/browser';
  import { passkeyWords } from '$lib/core/forms';
  import type { PasskeyShown } from '$lib/server/accounts';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { formOf } from '../frame/forms';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Field, Input } from '../kit';
  import AccountField from './AccountField.svelte';
  import { keyAnswer } from './keys';
  import Lines from './Lines.svelte';

  /** Passkeys: a device lets one in instead of the pass phrase (W3C Web Authentication). */
  let { passkeys }: { passkeys: PasskeyShown[] } = $props();
  const { form, errors, enhance, submitting } = formOf(
    passkeyWords,
    { name: '', phrase: '' },
    async (said) => {
      const { offer, options } = await call<{
        offer: string;
        options: Parameters<typeof startRegistration>[0]['optionsJSON'];
      }>('POST', '/api/account/passkeys', { act: 'begin', phrase: said.phrase });
      const answer = await keyAnswer(() => startRegistration({ optionsJSON: options }));
      await call('POST', '/api/account/passkeys', { act: 'confirm', offer, answer, name: said.name });
      [said.name, said.phrase] = ['', ''];
      done('From now on this passkey lets you in.');
      await renew('members');
    },
  );
  const drop = ({ id, name }: PasskeyShown) =>
    attempt(async () => {
      await call('POST', '/api/account/passkeys', { act: 'drop', id });
      done(`${name} lets nobody in any more.`);
      await renew('members');
    });
</script>

<section aria-labelledby="passkeys">
  <h2 id="passkeys">Passkeys</h2>
  <p>
    A device of yours lets you in by its own lock, such as your finger or its number, without the pass phrase
    and without a code.
  </p>
  {#if passkeys.length}
    <Lines>
      {#each passkeys as one (one.id)}
        <li>
          <span
            >{one.name}
            <span class="sub"
              >since {dateLabel(one.made)}{one.used
                ? `, last used ${dateLabel(one.used)}`
                : ', never used'}</span
            ></span
          >
          <Button small aria-label="Take off {one.name}" onclick={() => drop(one)}>Take off</Button>
        </li>
      {/each}
    </Lines>
  {/if}
  <form method="POST" use:enhance aria-label="New passkey">
    <Field label="What the device is called" errors={$errors.name}>
      {#snippet children(attributes)}<Input
          bind:value={$form.name}
          placeholder="My laptop"
          {...attributes}
        />{/snippet}
    </Field>
    <AccountField
      label="Pass phrase, to be sure it is you"
      fills="current-password"
      bind:value={$form.phrase}
      errors={$errors.phrase}
    />
    <Button type="submit" disabled={$submitting}>Add a passkey</Button>
  </form>
</section>
