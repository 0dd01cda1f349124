<script lang="ts">
  import { page } from '$app/state';
  import type { TagLook } from '$lib/core/source';
  import { Swatch } from '../kit';

  /** A tag as it looks: its colour in its pattern, where it has one, and its name. */
  let { tag }: { tag: string } = $props();
  const look = $derived((page.data.tagLooks as Record<string, TagLook> | undefined)?.[tag]);
</script>

{#if look?.tint}<Swatch tint={look.tint} pattern={look.pattern} />{/if}{tag}
