<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { OURS } from './looks';

  type Props = Omit<HTMLInputAttributes, 'class' | 'value'> & { checked?: boolean | null; class?: string };
  let { checked = $bindable(false), class: className = '', ...rest }: Props = $props();
</script>

<Checkbox {...rest as object} bind:checked={checked as boolean} color={OURS} class={className} />
