<script lang="ts">
  import { call } from '../frame/client';
  import { renew } from '../frame/live.svelte';
  import { attempt, done } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import AccountField from './AccountField.svelte';
  import HandedOver from './HandedOver.svelte';

  /** Codes of an app that are asked for beside the pass phrase (RFC 6238). */
  let { on }: { on: boolean } = $props();
  let phrase = $state('');
  let code = $state('');
  let begun = $state<{ secret: string; address: string }>();

  const send = (said: object) =>
    call<{ secret: string; address: string }>('POST', '/api/account/codes', said);
  async function begin(event: Event) {
    event.preventDefault();
    begun = await attempt(() => send(on ? { act: 'drop', phrase } : { act: 'begin', phrase }));
    if (!begun) return;
    phrase = '';
    if (!on) return;
    begun = undefined;
    done('No codes are asked for any more.');
    await renew('members');
  }
  async function confirm(event: Event) {
    event.preventDefault();
    const made = await attempt(() => send({ act: 'confirm', code }));
    if (!made) return;
    [begun, code] = [undefined, ''];
    done('From now on a code is asked for when you sign in.');
    await renew('members');
  }
</script>

<section aria-labelledby="codes">
  <h2 id="codes">Codes of an app</h2>
  <p>
    {on
      ? 'When you sign in, the code that your app shows is asked for beside the pass phrase.'
      : 'An app that shows a new code every 30 seconds can be asked for beside the pass phrase.'}
  </p>
  {#if begun}
    <div class="box">
      <HandedOver
        address={begun.secret}
        what="secret"
        words="Give this secret to the app, or open the address below on the device it is on. Then type the code it shows."
      />
      <p class="wrap"><a class="link" href={begun.address}>{begun.address}</a></p>
      <form onsubmit={confirm}>
        <AccountField label="Code of the app" fills="one-time-code" bind:value={code} />
        <Button look="main" type="submit" disabled={!code.trim()}>Ask for codes</Button>
      </form>
    </div>
  {:else}
    <form onsubmit={begin}>
      <AccountField label="Pass phrase, to be sure it is you" fills="current-password" bind:value={phrase} />
      <Button type="submit" disabled={!phrase}>{on ? 'Ask for no codes' : 'Begin'}</Button>
    </form>
  {/if}
</section>

<style>
  .box {
    max-width: 520px;
    margin-top: 10px;
  }
  .wrap {
    margin-top: 8px;
    overflow-wrap: anywhere;
    font-size: 12.5px;
  }
</style>
