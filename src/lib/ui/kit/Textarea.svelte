<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Textarea } from 'flowbite-svelte';
  import type { HTMLTextareaAttributes } from 'svelte/elements';
  import { fieldLook, type FieldLook } from './looks';

  type Props = Omit<HTMLTextareaAttributes, 'class' | 'value' | 'rows'> & {
    value?: string | null | undefined;
    rows?: number | string;
    element?: HTMLTextAreaElement | undefined;
    look?: FieldLook;
    class?: ClassValue;
  };
  let {
    value = $bindable(),
    element = $bindable(),
    look = 'field',
    class: className,
    ...rest
  }: Props = $props();
</script>

<Textarea
  {...rest as object}
  bind:value={value as string}
  bind:elementRef={element}
  class={clsx(fieldLook({ look }), 'resize-y dark:border-edge dark:bg-page dark:text-ink', className)}
/>
