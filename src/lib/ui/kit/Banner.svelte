<script lang="ts">
  import clsx, { type ClassValue } from 'clsx';
  import { Banner } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';
  import { bannerLook, OURS, type BannerLook } from './looks';

  type Props = Omit<HTMLAttributes<HTMLDivElement>, 'class'> & {
    look?: BannerLook;
    class?: ClassValue;
    children: Snippet;
  };
  /** Something that holds for all of a view as long as it is so: it stands in its place and cannot be put away. */
  let { look = 'said', class: className, children, ...rest }: Props = $props();
</script>

<Banner
  {...rest as object}
  type={OURS}
  color={OURS}
  dismissable={false}
  params={{ duration: 0 }}
  class={clsx(bannerLook({ look }), className)}
  classes={{ insideDiv: 'mx-0 w-full flex-col items-stretch gap-1.5 md:flex-col md:items-stretch' }}
  >{@render children()}</Banner
>
