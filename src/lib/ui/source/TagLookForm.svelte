<script lang="ts">
  import { untrack } from 'svelte';
  import { TAG_PATTERNS, TAG_TINTS, type TagLook, type TagPattern } from '$lib/core/source';
  import { Button, Input, Radio, Select, Swatch } from '../kit';

  interface Props {
    tag: string;
    look: TagLook;
    /** The groups there are. */
    groups: readonly string[];
    onsay: (look: TagLook) => void;
    onclose: () => void;
  }
  /** How a tag looks: its colour, the pattern that is laid on in, and its group. */
  let { tag, look, groups, onsay, onclose }: Props = $props();

  // It begins as the tag looks.
  const before = untrack(() => look);
  let tint = $state<string>(before.tint ?? 'none');
  let pattern = $state<TagPattern>(before.pattern);
  let group = $state(before.group ?? '');
  const listId = $props.id();

  const say = () =>
    onsay({ tint: tint === 'none' ? null : (tint as TagLook['tint']), pattern, group: group.trim() || null });
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    say();
  }}
>
  <fieldset>
    <legend class="small-label">Colour of {tag}</legend>
    <Radio bind:group={tint} value="none" name="tint-{listId}">None</Radio>
    {#each TAG_TINTS as one (one)}
      <Radio bind:group={tint} value={one} name="tint-{listId}"
        ><span class="of"><Swatch tint={one} {pattern} large />{one}</span></Radio
      >
    {/each}
  </fieldset>
  <label class="small-label"
    >Pattern
    <Select aria-label="Pattern of {tag}" disabled={tint === 'none'} bind:value={pattern}>
      {#each TAG_PATTERNS as one (one)}<option value={one}>{one}</option>{/each}
    </Select></label
  >
  <label class="small-label"
    >Group
    <Input
      aria-label="Group of {tag}"
      placeholder="None"
      list="{listId}-groups"
      maxlength={80}
      bind:value={group}
    />
  </label>
  <datalist id="{listId}-groups"
    >{#each groups as one (one)}<option value={one}></option>{/each}</datalist
  >
  <Button look="main" type="submit">Keep it so</Button>
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
  label {
    display: grid;
    gap: 3px;
    min-width: 170px;
  }
  .of {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
</style>
