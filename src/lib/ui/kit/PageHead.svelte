<script lang="ts">
  import type { Snippet } from 'svelte';

  /**
   * The head of a view: its name, what it holds in a line (`.sub`), and what can be done with all of it: where that is much,
   * in `.tools`, which go into a row of their own together.
   */
  let { children }: { children: Snippet } = $props();
</script>

<header class="head">{@render children()}</header>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 14px;
    padding: 14px 26px 12px;
    border-bottom: 1px solid var(--rule);
    background: var(--page);
  }
  .head :global(.sub) {
    color: var(--ink-3);
    font-size: 14px;
  }
  .head :global(.tools) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: flex-end;
    gap: inherit;
    margin-left: auto;
  }
  @media print {
    .head {
      padding: 0 0 8px;
    }
    .head :global(:is(select, input, .picker)) {
      display: none;
    }
  }
</style>
