<script lang="ts">
  import { Button, Input } from '../kit';
  /** Tags as chips; existing ones are offered while typing. */
  let { tags, offered, onchange }: { tags: string[]; offered: string[]; onchange: (tags: string[]) => void } =
    $props();
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
    <span class="tag"
      >{tag}
      <Button
        look="bare"
        aria-label="Remove tag {tag}"
        onclick={() => onchange(tags.filter((t) => t !== tag))}>×</Button
      ></span
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

<style>
  .tag {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    min-height: 28px;
    padding: 2px 12px;
    border: 1px solid var(--edge);
    border-radius: 14px;
    font-size: 12px;
    font-weight: 550;
  }
</style>
