<script lang="ts">
  import { Popover } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    /** The CSS selector of what opens it, when that is not the element before it. */
    triggeredBy?: string;
    label: string;
    /** It is open. */
    open?: boolean;
    placement?: 'bottom' | 'bottom-end' | 'bottom-start' | 'top';
    children: Snippet;
  }
  /** Something small that opens beside a button and closes when one turns away. */
  let { triggeredBy, label, open = $bindable(false), placement = 'bottom-end', children }: Props = $props();
</script>

<Popover
  {...triggeredBy ? { triggeredBy } : {}}
  trigger="click"
  bind:isOpen={open}
  {placement}
  arrow={false}
  transitionParams={{ duration: 0 }}
  role="dialog"
  aria-label={label}
  class="z-20 rounded-[7px] border border-edge bg-page text-ink shadow-lg dark:border-edge dark:bg-page dark:text-ink"
  classes={{ content: 'p-3' }}
>
  {@render children()}
</Popover>
