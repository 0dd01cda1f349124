<script lang="ts">
  import { codeAsked, phraseAsked } from '$lib/core/forms';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { renew } from '../frame/live.svelte';
  import { done } from '../frame/toasts.svelte';
  import { Button } from '../kit';
  import AccountField from './AccountField.svelte';
  import HandedOver from './HandedOver.svelte';

  /** Codes of an app that are asked for beside the pass phrase (RFC 6238). */
  let { on }: { on: boolean } = $props();
  let begun = $state<{ secret: string; address: string }>();

  const send = (said: object) =>
    call<{ secret: string; address: string }>('POST', '/api/account/codes', said);
  const {
    form: sure,
    errors: unsure,
    enhance: begin,
    submitting: beginning,
  } = formOf(phraseAsked, { phrase: '' }, async (said) => {
    const { phrase } = said;
    said.phrase = '';
    if (!on) {
      begun = await send({ act: 'begin', phrase });
      return;
    }
    await send({ act: 'drop', phrase });
    done('No codes are asked for any more.');
    await renew('members');
  });
  const {
    form: shown,
    errors: unlike,
    enhance: confirm,
    submitting: confirming,
  } = formOf(codeAsked, { code: '' }, async (said) => {
    await send({ act: 'confirm', code: said.code });
    said.code = '';
    begun = undefined;
    done('From now on a code is asked for when you sign in.');
    await renew('members');
  });
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
      <form method="POST" use:confirm>
        <AccountField
          label="Code of the app"
          fills="one-time-code"
          bind:value={$shown.code}
          errors={$unlike.code}
        />
        <Button look="main" type="submit" disabled={$confirming}>Ask for codes</Button>
      </form>
    </div>
  {:else}
    <form method="POST" use:begin>
      <AccountField
        label="Pass phrase, to be sure it is you"
        fills="current-password"
        bind:value={$sure.phrase}
        errors={$unsure.phrase}
      />
      <Button type="submit" disabled={$beginning}>{on ? 'Ask for no codes' : 'Begin'}</Button>
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
