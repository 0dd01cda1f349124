<script lang="ts">
  import type { Tint } from '$lib/core/passages';

  /** A tint's colour with its line pattern, so that it is told without colour too. */
  let { tint }: { tint: Tint } = $props();
  const LINE: Record<Tint, string> = {
    claim: 'M0 13h20',
    evidence: 'M1.500 13h.1M6 13h.1M10.500 13h.1M15 13h.1M19 13h.1',
    method: 'M0 11h20M0 14h20',
    term: 'M0 13h5M7.500 13h5M15 13h5',
    doubt: 'M0 13q2.500-3 5 0t5 0 5 0 5 0',
  };
</script>

<svg
  class="swatch"
  viewBox="0 0 20 16"
  width="20"
  height="16"
  style="--tint: var(--tint-{tint})"
  aria-hidden="true"
>
  <rect width="20" height="13" rx="2" fill="color-mix(in srgb, var(--tint) 65%, transparent)" />
  <path
    d={LINE[tint]}
    fill="none"
    stroke="color-mix(in srgb, var(--tint) 45%, var(--ink))"
    stroke-width={tint === 'method' || tint === 'doubt' ? 1.2 : 2}
    stroke-linecap={tint === 'evidence' ? 'round' : 'butt'}
  />
</svg>

<style>
  .swatch {
    display: inline-block;
    vertical-align: -3px;
  }
</style>
