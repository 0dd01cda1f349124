<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Where files are dropped. What is in it has a button for those who have none to drag. */
  let { onfiles, children }: { onfiles: (files: FileList) => void; children: Snippet } = $props();
  let over = $state(false);
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="drop"
  class:over
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(event) => {
    event.preventDefault();
    over = false;
    if (event.dataTransfer?.files.length) onfiles(event.dataTransfer.files);
  }}
>
  {@render children()}
</div>

<style>
  .drop {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px 18px;
    padding: 22px;
    border: 2px dashed var(--edge);
    border-radius: 10px;
    color: var(--ink-2);
  }
  .over {
    border-color: var(--thread);
    background: var(--thread-soft);
  }
</style>
