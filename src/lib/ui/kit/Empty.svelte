<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What stands where there is nothing yet: what would be here, and the next step. */
  let { children }: { children: Snippet } = $props();
</script>

<div class="empty">{@render children()}</div>

<style>
  .empty {
    max-width: 560px;
    padding: 56px 26px;
    margin: 0 auto;
    color: var(--ink-2);
  }
  .empty :global(h2) {
    margin-bottom: 6px;
    color: var(--ink);
    font-family: var(--font-serif);
    font-size: 20px;
  }
</style>
