<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Range } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  type Props = Omit<HTMLInputAttributes, 'class' | 'value' | 'size' | 'type' | 'color'> & {
    value: number;
    class?: ClassValue;
  };
  /** A number chosen along a line. */
  let { value, class: className, ...rest }: Props = $props();
</script>

<Range {...rest as object} {value} class={clsx(className)} />
