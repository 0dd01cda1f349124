<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Badge } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';
  import { badgeLook, OURS, type BadgeLook } from './looks';

  type Props = Omit<HTMLAttributes<HTMLDivElement>, 'class'> & {
    look?: BadgeLook;
    class?: ClassValue;
    children: Snippet;
  };
  /** A word or a number beside something: how many there are, how many wait, a tag. */
  let { look = 'count', class: className, children, ...rest }: Props = $props();
</script>

<Badge {...rest as object} color={OURS} params={{ duration: 0 }} class={clsx(badgeLook({ look }), className)}
  >{@render children()}</Badge
>
