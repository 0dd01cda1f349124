<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Lines with what each is on the left and what is done with it on the right; `.sub` is what is said smaller. */
  let { children }: { children: Snippet } = $props();
</script>

<ul>{@render children()}</ul>

<style>
  ul :global(li) {
    display: flex;
    gap: 16px;
    align-items: center;
    justify-content: space-between;
    min-height: 44px;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
  }
  ul :global(.sub) {
    margin-left: 6px;
    color: var(--ink-3);
    font-size: 13.5px;
  }
  ul :global(.sub.block) {
    margin-left: 0;
  }
</style>
