<script lang="ts">
  import type { Snippet } from 'svelte';
  import Mark from '../frame/Mark.svelte';

  /** A page at the door: one thing to do, and nothing around it. */
  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<svelte:head><title>{title} · Retexa</title></svelte:head>

<div class="door">
  <main id="main">
    <div class="brand"><Mark /> <span>Retexa</span></div>
    <h1>{title}</h1>
    {@render children()}
  </main>
</div>

<style>
  .door {
    display: grid;
    place-items: start center;
    min-height: 100dvh;
    padding: max(24px, 9vh) 16px 40px;
    background: var(--side);
  }
  main {
    width: min(420px, 100%);
    padding: 26px 30px 30px;
    border: 1px solid var(--rule);
    border-radius: 10px;
    background: var(--page);
  }
  .brand {
    display: inline-flex;
    gap: 10px;
    align-items: center;
    margin-bottom: 18px;
    padding: 6px 12px 6px 8px;
    border-radius: 7px;
    background: #123644;
    color: #fff;
    font-weight: 700;
  }
  h1 {
    margin-bottom: 6px;
  }
  main :global(form) {
    display: grid;
    gap: 14px;
    margin-top: 14px;
  }
  main :global(p) {
    color: var(--ink-2);
    font-size: 14.5px;
    line-height: 1.5;
  }
</style>
