<script lang="ts">
  import type { ClassValue } from 'clsx';
  import type { Snippet } from 'svelte';
  import Button from './Button.svelte';
  import type { ButtonLook } from './looks';

  /** A button that lets the person pick files. */
  let {
    label,
    accept,
    multiple = false,
    look = 'plain',
    small = false,
    disabled = false,
    title,
    class: className,
    onfiles,
    children,
  }: {
    /** What the files are, for assistive technology. */
    label: string;
    accept?: string;
    multiple?: boolean;
    look?: ButtonLook;
    small?: boolean;
    disabled?: boolean;
    /** What it does, where it shows no words. */
    title?: string;
    class?: ClassValue;
    onfiles: (files: File[]) => void;
    children: Snippet;
  } = $props();
  let picker: HTMLInputElement | undefined = $state();

  /** Opens the picker. */
  export const open = (): void => picker?.click();
</script>

<Button
  {look}
  {small}
  {disabled}
  class={className}
  {...title ? { title, 'aria-label': label } : {}}
  onclick={open}>{@render children()}</Button
>
<input
  bind:this={picker}
  type="file"
  class="sr-only"
  tabindex="-1"
  {accept}
  {multiple}
  aria-label={label}
  onchange={(e) => {
    const files = [...(e.currentTarget.files ?? [])];
    // The same file can be picked again.
    e.currentTarget.value = '';
    if (files.length) onfiles(files);
  }}
/>
