<script lang="ts">
  import { ThemeProvider } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { theme } from './theme';
  import Tips from './Tips.svelte';

  /** Gives everything in it the one theme, and shows the words of what one points at. */
  let { children }: { children: Snippet } = $props();
</script>

<ThemeProvider {theme}>
  {@render children()}
  <Tips />
</ThemeProvider>
