<script lang="ts">
  import { leadWords } from '$lib/core/forms';
  import { looksLikeReference, splitReferences } from '$lib/core/leads';
  import { call } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { formOf } from '../frame/forms';
  import { renewed } from '../frame/live.svelte';
  import { doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Field, Textarea } from '../kit';

  interface Props {
    projectId: string | null;
    /** The source the works are met in. */
    metIn: string | null;
  }
  /** Where works met while reading are put down: one, or a whole list of them. What was typed and not kept is there again. */
  let { projectId, metIn }: Props = $props();

  const BEGUN = 'leads';
  const { form, errors, enhance, submitting } = formOf(
    leadWords,
    { text: drafts.find<string>(BEGUN) ?? '' },
    async (said) => {
      const { leads } = await call<{ leads: { id: string }[] }>('POST', '/api/leads', {
        text: said.text,
        projectId,
        metIn,
      });
      said.text = '';
      doneWithUndo(leads.length === 1 ? 'Kept as a lead.' : `${leads.length} kept as leads.`, () =>
        call('POST', '/api/leads/bin', { ids: leads.map(({ id }) => id) }),
      );
      await renewed();
    },
  );
  const references = $derived(splitReferences($form.text));
  $effect(() => {
    if ($form.text.trim()) drafts.keep(BEGUN, $form.text);
    else drafts.drop(BEGUN);
  });
</script>

<form class="put-down" use:enhance>
  <Field
    label="Works met while reading: paste a reference, or a whole list of them"
    errors={$form.text.trim() ? $errors.text : undefined}
  >
    <Textarea
      id="new-leads"
      class="font-serif"
      rows="3"
      placeholder="Barrow, E. M. (1998). Grain and tide …"
      bind:value={$form.text}
    ></Textarea>
  </Field>
  <div class="line">
    <Button look="main" type="submit" disabled={!$form.text.trim() || $submitting}
      >{references.length > 1 ? `Keep ${references.length} as leads` : 'Keep as a lead'}</Button
    >
    {#if $form.text.trim() && !references.some(looksLikeReference)}<span class="small-label"
        >Does not read as a reference, and can be kept all the same.</span
      >{/if}
  </div>
</form>

<style>
  .put-down {
    display: grid;
    gap: 6px;
    padding: 14px 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--side);
  }
  .line {
    display: flex;
    align-items: center;
    gap: 12px;
  }
</style>
