<script lang="ts">
  /** The mark of the product: a woven thread. */
  let { size = 20 }: { size?: number } = $props();
</script>

<svg viewBox="0 0 24 24" width={size} height={size} aria-hidden="true">
  <g stroke-width="2.3" stroke-linecap="round">
    <path d="M8 3v18M16 3v18" stroke="#e0ecef" />
    <path d="M3 8h6.5M14.5 8H21M3 16h2.5M10.500 16H21" stroke="#f3d36b" />
  </g>
</svg>
