<script lang="ts">
  import { untrack } from 'svelte';
  import { orcidWords } from '$lib/core/forms';
  import { formOf } from '../frame/forms';
  import { change } from '../frame/toasts.svelte';
  import OneField from './OneField.svelte';

  /** Says who is meant by a name, by their ORCID; left empty, it is taken away. */
  let { name, orcid, onclose }: { name: string; orcid: string | undefined; onclose: () => void } = $props();

  const { form, errors, enhance, submitting } = formOf(
    orcidWords,
    untrack(() => ({ name, orcid: orcid ?? null })),
    async (said) => {
      const words = said.orcid ? `${name} is ${said.orcid}.` : `The ORCID of ${name} is taken away.`;
      if (await change('/api/people/orcids', said, words)) onclose();
    },
  );
</script>

<form method="POST" use:enhance aria-label="Who {name} is">
  <OneField
    label="ORCID of {name}"
    placeholder="0000-0000-0000-0000"
    sends="Keep it"
    bind:value={() => $form.orcid ?? '', (typed) => ($form.orcid = typed)}
    errors={$errors.orcid}
    sending={$submitting}
    {onclose}
  />
</form>

<style>
  form {
    display: grid;
    gap: 8px;
    width: 100%;
  }
</style>
