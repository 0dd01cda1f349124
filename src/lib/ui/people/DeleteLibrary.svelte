<script lang="ts">
  import { libraryWords } from '$lib/core/forms';
  import { call } from '../frame/client';
  import { formOf } from '../frame/forms';
  import { Button, Dialog, Field, Input } from '../kit';

  /** Deletes the library that is open, once its name was typed. */
  let { library, people }: { library: string; people: number } = $props();
  let asked = $state(false);
  const { form, errors, enhance, submitting } = formOf(libraryWords, { name: '' }, async (said) => {
    await call('DELETE', '/api/libraries', said);
    location.assign('/members');
  });
</script>

<Button small look="quiet" onclick={() => (asked = true)}>Delete this library…</Button>
{#if asked}
  <Dialog open title="Delete {library}?" size="sm" onclose={() => (asked = false)}>
    <form method="POST" use:enhance class="grid gap-4" aria-label="Delete the library">
      <p>
        Everything in it goes for good, for {people === 1 ? 'you' : `all ${people} who are in it`}: sources,
        documents, passages, notes, outlines and drafts. It cannot be undone. A backup made before still has
        it.
      </p>
      <Field label="Type its name to delete it" errors={$errors.name}>
        {#snippet children(attributes)}<Input
            bind:value={$form.name}
            autocomplete="off"
            {...attributes}
          />{/snippet}
      </Field>
      <div class="flex gap-2">
        <Button look="main" type="submit" disabled={$submitting || $form.name.trim() === ''}
          >Delete it for good</Button
        >
        <Button onclick={() => (asked = false)}>Keep it</Button>
      </div>
    </form>
  </Dialog>
{/if}
