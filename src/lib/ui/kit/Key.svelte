<script lang="ts">
  import { Kbd } from 'flowbite-svelte';

  /** A key or several pressed together, as they stand on a keyboard. */
  let { keys, small = false }: { keys: string; small?: boolean } = $props();
</script>

<Kbd
  class={small
    ? 'border-current/30 bg-transparent px-1 text-[10.5px] text-current/80 dark:border-current/30 dark:bg-transparent dark:text-current/80'
    : ''}>{keys}</Kbd
>
