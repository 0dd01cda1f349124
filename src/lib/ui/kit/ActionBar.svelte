<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A line at the foot of a view: what is chosen in it, and what can be done with that. */
  let { label, children }: { label?: string; children: Snippet } = $props();
</script>

<footer class="bar" aria-label={label}>{@render children()}</footer>

<style>
  .bar {
    display: flex;
    flex: none;
    align-items: center;
    gap: 8px;
    padding: 7px 26px;
    overflow-x: auto;
    border-top: 1px solid var(--edge);
    background: var(--page);
  }
</style>
