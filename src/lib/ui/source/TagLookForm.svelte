<script lang="ts">
  import { untrack } from 'svelte';
  import { TAG_PATTERNS, TAG_TINTS, tagLook, type TagLook } from '$lib/core/source';
  import { formOf } from '../frame/forms';
  import { Button, Field, Input, Radio, Select, Swatch } from '../kit';

  interface Props {
    tag: string;
    look: TagLook;
    /** The groups there are. */
    groups: readonly string[];
    onsay: (look: TagLook) => Promise<unknown>;
    onclose: () => void;
  }
  /** How a tag looks: its colour, the pattern that is laid on in, and its group. */
  let { tag, look, groups, onsay, onclose }: Props = $props();

  // It begins as the tag looks.
  const { form, errors, enhance, submitting } = formOf<TagLook>(
    tagLook,
    untrack(() => ({ ...look })),
    (said) => onsay(said),
  );
  const listId = $props.id();
  /** What stands for no colour among the answers. */
  const NONE = 'none';
  const shown = {
    get tint(): string {
      return $form.tint ?? NONE;
    },
    set tint(name) {
      $form.tint = TAG_TINTS.find((one) => one === name) ?? null;
    },
  };
</script>

<form method="POST" use:enhance>
  <fieldset>
    <legend class="small-label">Colour of {tag}</legend>
    <Radio bind:group={shown.tint} value={NONE} name="tint-{listId}">None</Radio>
    {#each TAG_TINTS as one (one)}
      <Radio bind:group={shown.tint} value={one} name="tint-{listId}"
        ><span class="of"><Swatch tint={one} pattern={$form.pattern} large />{one}</span></Radio
      >
    {/each}
  </fieldset>
  <Field label="Pattern">
    <Select aria-label="Pattern of {tag}" disabled={!$form.tint} bind:value={$form.pattern}>
      {#each TAG_PATTERNS as one (one)}<option value={one}>{one}</option>{/each}
    </Select>
  </Field>
  <Field label="Group" errors={$errors.group}>
    {#snippet children(attributes)}<Input
        aria-label="Group of {tag}"
        placeholder="None"
        list="{listId}-groups"
        maxlength={80}
        bind:value={$form.group}
        {...attributes}
      />{/snippet}
  </Field>
  <datalist id="{listId}-groups"
    >{#each groups as one (one)}<option value={one}></option>{/each}</datalist
  >
  <Button look="main" type="submit" disabled={$submitting}>Keep it so</Button>
  <Button look="quiet" onclick={onclose}>Leave it</Button>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 18px;
    align-items: end;
    width: 100%;
    padding: 10px 0 14px;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    width: 100%;
  }
  legend {
    margin-bottom: 4px;
  }
  .of {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
</style>
