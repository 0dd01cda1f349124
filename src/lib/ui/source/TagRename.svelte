<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { tagRenamed } from '$lib/core/forms';
  import type { TagItem } from '$lib/server/tags';
  import { placesOf } from '../frame/counting';
  import { formOf } from '../frame/forms';
  import { Button, Field, Input } from '../kit';

  interface Props {
    tag: string;
    /** All tags there are, with what has them. */
    tags: readonly TagItem[];
    /** Does it, and throws where it could not: what was typed stays then. */
    onrename: (to: string) => Promise<void>;
    onclose: () => void;
  }
  /** Calls a tag otherwise, or joins it with another, which is said before. */
  let { tag, tags, onrename, onclose }: Props = $props();

  const { form, errors, enhance, submitting } = formOf(
    tagRenamed,
    untrack(() => ({ to: tag })),
    async (said) => {
      const to = joins?.tag ?? said.to;
      if (to !== tag) await onrename(to);
      onclose();
    },
  );
  /** A tag there is that is called as what was typed. */
  const joins = $derived(
    tags.find((one) => one.tag !== tag && one.tag.toLowerCase() === $form.to.trim().toLowerCase()),
  );
  let field: HTMLInputElement | undefined = $state();
  // What was pressed to open it may still be there, and keeps the focus otherwise.
  onMount(() => field?.focus());
</script>

<form method="POST" use:enhance>
  <Field label="New name of {tag}" quiet errors={$errors.to}>
    {#snippet children(attributes)}<Input
        bind:element={field}
        class="w-[260px]!"
        aria-label="New name of {tag}"
        bind:value={$form.to}
        onkeydown={(e: KeyboardEvent) => {
          if (e.key === 'Escape') onclose();
        }}
        {...attributes}
      />{/snippet}
  </Field>
  <Button look="main" type="submit" disabled={$submitting || !$form.to.trim()}
    >{joins ? `Join with ${joins.tag}` : 'Rename'}</Button
  >
  <Button look="quiet" onclick={onclose}>Leave it</Button>
  {#if joins}<span class="small-label">{joins.tag} is there already, on {placesOf(joins)}.</span>{/if}
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: flex-start;
  }
  .small-label {
    line-height: 32px;
  }
</style>
