<script lang="ts">
  import { Breadcrumb, BreadcrumbItem } from 'flowbite-svelte';

  /** Where a view belongs: the views above it, the outermost first, each a way back. */
  let { above }: { above: readonly { href: string; name: string }[] } = $props();
</script>

<Breadcrumb ariaLabel="Above this view">
  {#each above as { href, name } (href)}
    <BreadcrumbItem {href}>
      {#snippet icon()}<span aria-hidden="true">‹</span>{/snippet}
      {name}
    </BreadcrumbItem>
  {/each}
</Breadcrumb>
