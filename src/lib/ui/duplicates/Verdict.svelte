<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** How sure it is. */
    verdict: string;
    /** Why. */
    children: Snippet;
  }
  /** What is thought of things that look like one, and why. */
  let { verdict, children }: Props = $props();
</script>

<p>
  <strong>{verdict}</strong>
  {@render children()}
</p>

<style>
  p {
    margin-bottom: 12px;
    color: var(--ink-2);
    font-size: 13.5px;
  }
  strong {
    margin-right: 6px;
    padding: 4px 10px;
    border-radius: 4px;
    background: var(--thread-soft);
    color: var(--ink);
  }
</style>
