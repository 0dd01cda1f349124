<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Input } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { fieldLook, OURS, type FieldLook } from './looks';
  import { tipOf } from './tip';

  type Props = Omit<HTMLInputAttributes, 'class' | 'value' | 'size' | 'children' | 'maxlength'> & {
    maxlength?: number | string;
    [attachment: symbol]: unknown;
    value?: string | null | undefined;
    element?: HTMLInputElement | undefined;
    look?: FieldLook;
    class?: ClassValue;
  };
  let {
    value = $bindable(),
    element = $bindable(),
    look = 'field',
    title,
    class: className,
    ...rest
  }: Props = $props();
</script>

<Input
  {...rest as object}
  {...tipOf(title, rest['aria-label'])}
  bind:value={value as string}
  bind:elementRef={element}
  color={OURS}
  size={OURS}
  class={clsx(fieldLook({ look }), className)}
/>
