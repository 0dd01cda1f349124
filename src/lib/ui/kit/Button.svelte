<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLAnchorAttributes, HTMLButtonAttributes } from 'svelte/elements';
  import type { Right } from '$lib/core/members';
  import Key from './Key.svelte';
  import { allows } from './rights';
  import { buttonLook, OURS, type ButtonLook } from './looks';
  import { tipOf } from './tip';

  type Props = Omit<HTMLButtonAttributes, 'class' | 'title'> &
    Pick<HTMLAnchorAttributes, 'href' | 'download' | 'target' | 'rel'> & {
      look?: ButtonLook;
      small?: boolean;
      /** The key that does the same, as a person reads it: `Enter`, `Alt+1`. Shown, and told to assistive technology. */
      keys?: string | undefined;
      /** What one must be allowed to do in the library; to who may not, it is not shown. */
      needs?: Right;
      /** What it does, in more words than it shows: shown where the pointer rests on it or the focus comes by keys. */
      title?: string | null | undefined;
      class?: ClassValue;
      children?: Snippet;
    };
  let {
    look = 'plain',
    small = false,
    keys,
    needs,
    title,
    disabled = false,
    class: className,
    children,
    ...rest
  }: Props = $props();
  const worn = $derived(clsx(buttonLook({ look, small, disabled: Boolean(disabled) }), className));
</script>

{#if !needs || allows(needs)}<Button
    {...rest as object}
    {...tipOf(title, rest['aria-label'])}
    disabled={Boolean(disabled)}
    color={OURS}
    size={OURS}
    class={worn}
    aria-keyshortcuts={keys?.replace(/Ctrl/g, 'Control')}
  >
    {@render children?.()}
    {#if keys}<Key small {keys} />{/if}
  </Button>{/if}
