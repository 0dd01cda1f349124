<script lang="ts">
  import { Popover } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    /** The CSS selector of the button that opens it. */
    triggeredBy: string;
    label: string;
    /** It is open. */
    open?: boolean;
    placement?: 'bottom' | 'bottom-end' | 'bottom-start' | 'top';
    children: Snippet;
  }
  /** Something small that opens beside a button when it is pressed, by pointer or by keys, and closes when one turns away. */
  let { triggeredBy, label, open = $bindable(false), placement = 'bottom-end', children }: Props = $props();

  const quiet = (event: Event) => event.stopImmediatePropagation();
  /** A press that no pointer made: by Enter or Space, or by assistive technology. */
  const pressed = (event: MouseEvent) => {
    if (event.detail === 0) open = !open;
  };
  const escaped = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    // It closes this and nothing around it.
    event.preventDefault();
    event.stopPropagation();
    document.querySelector<HTMLElement>(triggeredBy)?.focus();
    open = false;
  };
  // The kit opens it when its button has the focus, too: who goes through the page by Tab would open each on the way.
  $effect(() => {
    const button = document.querySelector<HTMLElement>(triggeredBy);
    button?.addEventListener('focusin', quiet, true);
    button?.addEventListener('click', pressed);
    return () => {
      button?.removeEventListener('focusin', quiet, true);
      button?.removeEventListener('click', pressed);
    };
  });
</script>

<Popover
  {triggeredBy}
  trigger="click"
  triggerDelay={0}
  bind:isOpen={open}
  {placement}
  arrow={false}
  transitionParams={{ duration: 0 }}
  role="dialog"
  aria-label={label}
  onkeydown={escaped}
  class="z-20 rounded-[7px] border border-edge bg-page text-ink shadow-lg dark:border-edge dark:bg-page dark:text-ink"
  classes={{ content: 'p-3' }}
>
  {@render children()}
</Popover>
