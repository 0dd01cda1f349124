<script lang="ts">
  import type { Passage } from '$lib/server/passages';

  interface Props {
    passage: Passage;
    /** How high it is at most, in pixels. */
    most: number;
  }
  /** The picture of a figure with what is drawn over it; nothing for a passage of words. */
  let { passage, most }: Props = $props();
  const figure = $derived(passage.figure);
  /** So large that nothing moves when it comes. */
  const size = $derived.by(() => {
    if (!figure) return [0, 0];
    const { width, height } = figure.image;
    const scale = Math.min(1, most / height, 420 / width);
    return [Math.round(width * scale), Math.round(height * scale)];
  });
</script>

{#if figure}<img
    src="/api/passages/{passage.id}/picture?drawn&of={figure.image.sha256}&at={passage.revision}"
    alt={figure.alt || passage.exact || figure.number || 'Figure'}
    width={size[0]}
    height={size[1]}
    loading="lazy"
  />{/if}

<style>
  img {
    max-width: 100%;
    height: auto;
    margin: 4px 0;
    border: 1px solid var(--rule);
    background: #fff;
  }
</style>
