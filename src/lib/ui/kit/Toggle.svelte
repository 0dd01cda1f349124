<script lang="ts">
  import { Toggle } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { OURS } from './looks';

  type Props = Omit<HTMLInputAttributes, 'class' | 'value' | 'size' | 'children'> & {
    checked?: boolean | null;
    class?: string;
    /** What is switched, in words: they switch it too. */
    children: Snippet;
  };
  /** Switches something on or off at once; what is kept later with a form is a Checkbox. */
  let { checked = $bindable(false), class: className = '', children, ...rest }: Props = $props();
</script>

<Toggle
  {...rest as object}
  role="switch"
  bind:checked={checked as boolean}
  color={OURS}
  size="small"
  class={className}>{@render children()}</Toggle
>
