<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Select } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLSelectAttributes } from 'svelte/elements';
  import { fieldLook, OURS, type FieldLook } from './looks';

  type Props = Omit<HTMLSelectAttributes, 'class' | 'value' | 'size'> & {
    value?: string | null | undefined;
    element?: HTMLSelectElement | undefined;
    look?: FieldLook;
    class?: ClassValue;
    /** Its options. */
    children: Snippet;
  };
  let {
    value = $bindable(),
    element = $bindable(),
    look = 'field',
    class: className,
    children,
    ...rest
  }: Props = $props();
  const room = $derived(
    look === 'chip' ? 'max-w-[190px] bg-[length:9px] bg-[position:right_8px_center] pr-7' : 'pr-8',
  );
</script>

<Select
  {...rest as object}
  bind:value={value as string}
  bind:elementRef={element}
  size={OURS}
  placeholder=""
  class={clsx(look === 'chip' ? 'w-auto' : 'min-w-0', className)}
  classes={{
    select: clsx(fieldLook({ look }), 'dark:border-edge dark:bg-page dark:text-ink', room),
  }}
>
  {@render children()}
</Select>
