<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What a part of the sheet of a source is called. */
  let { children }: { children: Snippet } = $props();
</script>

<h3>{@render children()}</h3>

<style>
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  h3:first-child {
    margin-top: 0;
  }
</style>
