<script lang="ts">
  import { ThemeProvider } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { theme } from './theme';

  /** Gives everything in it the one theme. */
  let { children }: { children: Snippet } = $props();
</script>

<ThemeProvider {theme}>{@render children()}</ThemeProvider>
