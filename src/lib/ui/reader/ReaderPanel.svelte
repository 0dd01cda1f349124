<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What stands beside a document for going about in it. */
  let { label, children }: { label: string; children: Snippet } = $props();
</script>

<nav class="panel" aria-label={label}>{@render children()}</nav>

<style>
  .panel {
    display: flex;
    flex: none;
    flex-direction: column;
    width: 232px;
    min-height: 0;
    border-right: 1px solid var(--margin-rule);
    background: var(--side);
  }
  @media (max-width: 900px) {
    .panel {
      display: none;
    }
  }
</style>
