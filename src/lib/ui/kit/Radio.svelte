<script lang="ts">
  import { Radio } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { OURS } from './looks';

  /** One of several answers, with its words. */
  let {
    group = $bindable(),
    value,
    name,
    title,
    onchange,
    children,
  }: {
    group?: string | undefined;
    value: string;
    name: string;
    title?: string;
    onchange?: () => void;
    children: Snippet;
  } = $props();
</script>

<span data-tip={title}>
  <Radio bind:group={group as string} {value} {name} {onchange} color={OURS}>{@render children()}</Radio>
</span>
