<script lang="ts">
  import { phraseAsked } from '$lib/core/forms';
  import type { Closing } from '$lib/server/libraries';
  import { call } from '../frame/client';
  import { countOf } from '../frame/counting';
  import { formOf } from '../frame/forms';
  import { attempt } from '../frame/toasts.svelte';
  import { Button, Dialog } from '../kit';
  import AccountField from './AccountField.svelte';

  /** Closes one's account, once it was shown what becomes of everything. */
  let what = $state.raw<Closing>();

  async function ask() {
    what = await attempt(() => call<Closing>('GET', '/api/account/closing'));
  }
  const { form, errors, enhance, submitting } = formOf(phraseAsked, { phrase: '' }, async (said) => {
    const { phrase } = said;
    said.phrase = '';
    await call('POST', '/api/account/closing', { phrase });
    location.assign('/sign-in');
  });
  const stays = $derived(what ? what.stays.map(({ name }) => name).join(', ') : '');
  const privately = $derived(what?.stays.reduce((sum, one) => sum + one.privately, 0) ?? 0);
</script>

<section aria-labelledby="closing">
  <h2 id="closing">Close the account</h2>
  <p>
    What you kept for a library others are in stays there under your name. All else of yours goes for good.
  </p>
  <Button class="mt-3" onclick={ask}>Close my account…</Button>
</section>

{#if what}
  <Dialog open title="Close your account?" size="sm" onclose={() => (what = undefined)}>
    {#if what.keeps}
      <p>
        You keep this server, and nobody else does: backups and ways back in hang on you. Your account stays.
      </p>
    {:else if what.stuck.length}
      <p>
        Others are in {what.stuck.map(({ name }) => name).join(', ')}, which would have no owner. Make
        somebody else an owner there first, under Members.
      </p>
    {:else}
      <form method="POST" use:enhance class="grid gap-4" aria-label="Close the account">
        <ul class="grid gap-2">
          {#each what.goes as one (one.id)}
            <li><strong>{one.name}</strong> goes for good, with {countOf(one.sources, 'source')}.</li>
          {/each}
          {#if stays}<li>You leave {stays}; what you kept there for all stays.</li>{/if}
          {#if privately}<li>
              {countOf(privately, 'passage, note or task', 'passages, notes and tasks')} that you keep for yourself
              there {privately === 1 ? 'goes' : 'go'} for good. Save them first, under Members of each library.
            </li>{/if}
        </ul>
        <p>It cannot be undone.</p>
        <AccountField
          label="Pass phrase, to be sure it is you"
          fills="current-password"
          bind:value={$form.phrase}
          errors={$errors.phrase}
        />
        <div class="flex gap-2">
          <Button look="main" type="submit" disabled={$submitting}>Close it for good</Button>
          <Button onclick={() => (what = undefined)}>Keep it</Button>
        </div>
      </form>
    {/if}
  </Dialog>
{/if}
