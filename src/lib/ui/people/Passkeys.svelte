<script lang="ts">
  import { startRegistration } from '@simplewebauthn/browser';
  import type { PasskeyShown } from '$lib/server/accounts';
  import { call } from '../frame/client';
  import { dateLabel } from '../frame/dates';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button, Field, Input } from '../kit';
  import AccountField from './AccountField.svelte';
  import { keyAnswer } from './keys';
  import Lines from './Lines.svelte';

  /** Passkeys: a device lets one in instead of the pass phrase (W3C Web Authentication). */
  let { passkeys }: { passkeys: PasskeyShown[] } = $props();
  let phrase = $state('');
  let name = $state('');
  let busy = $state(false);

  async function add(event: Event) {
    event.preventDefault();
    busy = true;
    const made = await attempt(async () => {
      const { offer, options } = await call<{
        offer: string;
        options: Parameters<typeof startRegistration>[0]['optionsJSON'];
      }>('POST', '/api/account/passkeys', { act: 'begin', phrase });
      const answer = await keyAnswer(() => startRegistration({ optionsJSON: options }));
      await call('POST', '/api/account/passkeys', {
        act: 'confirm',
        offer,
        answer,
        name: name.trim() || 'A device',
      });
      return true;
    });
    busy = false;
    if (!made) return;
    [phrase, name] = ['', ''];
    done('From now on this passkey lets you in.');
    await renew('members');
  }
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
  <form onsubmit={add} aria-label="New passkey">
    <Field label="What the device is called">
      {#snippet children(attributes)}<Input
          bind:value={name}
          placeholder="My laptop"
          {...attributes}
        />{/snippet}
    </Field>
    <AccountField label="Pass phrase, to be sure it is you" fills="current-password" bind:value={phrase} />
    <Button type="submit" disabled={!phrase || busy}>Add a passkey</Button>
  </form>
</section>
