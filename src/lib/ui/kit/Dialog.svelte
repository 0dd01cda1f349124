<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A dialogue over everything; the focus goes back to where it was when it closes. */
  let {
    open = $bindable(false),
    title,
    size = 'md',
    onclose,
    children,
  }: {
    open: boolean;
    title: string;
    size?: 'xs' | 'sm' | 'md' | 'lg' | 'xl';
    onclose?: () => void;
    children: Snippet;
  } = $props();

  let from: Element | null = null;
  let was = false;
  $effect.pre(() => {
    if (open && !was) from = document.activeElement;
    if (!open && was) {
      onclose?.();
      const back = from;
      // The dialogue leaves after its transition, and takes the focus with it unless that went elsewhere meanwhile.
      setTimeout(() => {
        if (document.activeElement === document.body || document.activeElement?.closest('dialog'))
          (back as HTMLElement | null)?.focus?.({ preventScroll: true });
      }, 160);
    }
    was = open;
  });
</script>

<Modal bind:open {title} {size}>{@render children()}</Modal>
