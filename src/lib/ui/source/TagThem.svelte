<script lang="ts">
  import { tagWords } from '$lib/core/forms';
  import { formOf } from '../frame/forms';
  import { Field, Input } from '../kit';

  interface Props {
    /** Tags that are proposed. */
    tags?: readonly string[];
    /** Whether it is done; what was typed stays otherwise. */
    ontag: (tag: string) => Promise<boolean>;
  }
  /** Where a tag is typed that what is selected gets. */
  let { tags = [], ontag }: Props = $props();
  const listId = $props.id();
  const { form, errors, enhance } = formOf(tagWords, { tag: '' }, async (said) => {
    if (await ontag(said.tag)) said.tag = '';
  });
</script>

<form method="POST" use:enhance>
  <Field label="Tag the selected" quiet errors={$form.tag ? $errors.tag : undefined}>
    {#snippet children(attributes)}<Input
        style="width: 120px"
        placeholder="Tag"
        maxlength={120}
        aria-label="Tag the selected"
        list={tags.length ? listId : undefined}
        bind:value={$form.tag}
        {...attributes}
      />{/snippet}
  </Field>
  {#if tags.length}<datalist id={listId}
      >{#each tags as one (one)}<option value={one}></option>{/each}</datalist
    >{/if}
</form>
