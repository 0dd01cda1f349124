<script lang="ts">
  import { shareWords, type ShareWords } from '$lib/core/forms';
  import type { Look } from '$lib/server/lists';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { renew } from '../frame/live.svelte';
  import { Button, Checkbox, Dialog, Field, Input, Select } from '../kit';
  import HandedOver from './HandedOver.svelte';

  interface Props {
    of: ShareWords['of'];
    /** What it is called, where nothing else is said. */
    name: string;
    /** How many references it opens now. */
    many: number;
    look: Look;
    onclose: () => void;
  }
  /** Makes a link that opens a list to whoever has it, to read. */
  let { of, name, many, look, onclose }: Props = $props();
  let link = $state('');
  // svelte-ignore state_referenced_locally
  const { form, errors, enhance, submitting } = formOf(
    shareWords.omit({ of: true }),
    { name, documents: false, passages: false, days: 90 as number | null },
    async (said) => {
      const { secret } = await call<{ secret: string }>('POST', '/api/shares', { ...said, of, look });
      link = `${location.origin}/read/${secret}`;
      await renew('members');
    },
  );
  const hereOnly = /^(?:localhost|127\.|\[::1\])/.test(location.hostname);
  const holds = $derived(
    of.what === 'list'
      ? `these ${many} references`
      : `what the ${of.what} holds when it is opened, now ${many === 1 ? 'one reference' : `${many} references`}`,
  );
</script>

<Dialog open title="A link to read" size="sm" {onclose}>
  {#if link}
    <HandedOver
      address={link}
      words="Whoever has this link can read it, without an account. It is shown this once; it can be withdrawn among the members of the library."
    />
    {#if hereOnly}<p class="mt-3 text-sm">
        This server is reached from this machine only, and so is the link.
      </p>{/if}
    <div class="mt-4"><Button look="main" onclick={onclose}>Done</Button></div>
  {:else}
    <form method="POST" use:enhance class="grid gap-3">
      <p>It opens {holds}, as they print, and as records to save. Nothing private is ever shown.</p>
      <Field label="What it is called" errors={$errors.name}>
        {#snippet children(attributes)}<Input bind:value={$form.name} {...attributes} />{/snippet}
      </Field>
      <label class="flex items-center gap-2"
        ><Checkbox bind:checked={$form.passages} /> With the passages that are for the whole library</label
      >
      <label class="flex items-center gap-2"
        ><Checkbox bind:checked={$form.documents} /> With the documents: may they be handed on?</label
      >
      <label class="max-w-[220px]"
        ><span class="small-label">Good for</span><Select
          bind:value={
            () => String($form.days ?? ''), (days) => ($form.days = days === '' ? null : Number(days))
          }
        >
          <option value="7">a week</option><option value="30">30 days</option><option value="90"
            >90 days</option
          ><option value="365">a year</option><option value="">until it is withdrawn</option>
        </Select></label
      >
      <div><Button look="main" type="submit" disabled={$submitting}>Make the link</Button></div>
    </form>
  {/if}
</Dialog>
