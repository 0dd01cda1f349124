<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Search } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { fieldLook, type FieldLook } from './looks';

  type Props = Omit<HTMLInputAttributes, 'class' | 'value' | 'size' | 'type' | 'children'> & {
    /** What is looked for: said to assistive technology. */
    'aria-label': string;
    value?: string | null | undefined;
    element?: HTMLInputElement | undefined;
    look?: FieldLook;
    class?: ClassValue;
  };
  /** A field for words that are looked for. It is never asked for: empty, it looks for nothing. */
  let {
    value = $bindable(),
    element = $bindable(),
    look = 'field',
    class: className,
    ...rest
  }: Props = $props();
</script>

<Search
  {...rest as object}
  required={false}
  bind:value={value as string}
  bind:elementRef={element}
  size="sm"
  class={clsx('w-auto min-w-0', className)}
  classes={{ input: clsx(fieldLook({ look }), 'w-full ps-[30px]! pe-2') }}
/>
