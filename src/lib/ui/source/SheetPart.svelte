<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A part of the sheet below the fields of the record. */
  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<h3>{title}</h3>
{@render children()}

<style>
  h3 {
    margin: 20px 0 6px;
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
</style>
