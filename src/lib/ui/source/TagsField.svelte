<script lang="ts">
  import { Badge, Button, Input, allows } from '../kit';
  import TagName from './TagName.svelte';
  interface Props {
    tags: string[];
    offered: string[];
    /** Keywords it came with, which are no tags until they are taken. */
    given?: readonly string[];
    onchange: (tags: string[]) => void;
  }
  /** Tags as chips; existing ones are offered while typing. */
  let { tags, offered, given = [], onchange }: Props = $props();
  let adding = $state('');
  const listId = $props.id();

  function add() {
    const more = adding
      .split(/[,;]/)
      .map((t) => t.trim())
      .filter((t) => t && !tags.includes(t));
    adding = '';
    if (more.length) onchange([...tags, ...more]);
  }
</script>

<div class="flex flex-wrap items-center gap-1.5">
  {#each tags as tag (tag)}
    <Badge look="tag" class="tag"
      ><TagName {tag} />
      <Button
        look="bare"
        aria-label="Remove tag {tag}"
        onclick={() => onchange(tags.filter((t) => t !== tag))}>×</Button
      ></Badge
    >
  {/each}
  <Input
    style="width: 130px; min-height: 28px; border-style: dashed"
    list={listId}
    placeholder="Add a tag"
    aria-label="Add a tag"
    bind:value={adding}
    onchange={add}
    onkeydown={(e) => {
      if (e.key === 'Enter') {
        e.preventDefault();
        add();
      }
    }}
  />
  <datalist id={listId}
    >{#each offered.filter((t) => !tags.includes(t)) as tag (tag)}<option value={tag}
      ></option>{/each}</datalist
  >
</div>
{#if given.length && allows('edit')}
  <p class="given">
    <span class="small-label">Keywords it came with</span>
    {#each given as word (word)}<Button
        small
        look="quiet"
        title="Take it as a tag"
        aria-label="Take {word} as a tag"
        onclick={() => onchange([...tags, word])}>+ {word}</Button
      >{/each}
    {#if given.length > 1}<Button look="link" class="text-xs" onclick={() => onchange([...tags, ...given])}
        >Take all {given.length}</Button
      >{/if}
  </p>
{/if}

<style>
  .given {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 4px;
    align-items: baseline;
    margin-top: 4px;
  }
</style>
