<script module lang="ts">
  import type { TagPattern, TagTint } from '$lib/core/source';

  /** The pattern each colour of a note is laid on in: none is told by colour alone. */
  const PATTERN: Record<TagTint, TagPattern> = {
    ochre: 'full',
    moss: 'stripes',
    lagoon: 'dots',
    heather: 'chequers',
    brick: 'stripes',
    slate: 'full',
  };
</script>

<script lang="ts">
  import { Swatch } from '../kit';

  /** The colour of a note. */
  let { tint }: { tint: TagTint } = $props();
</script>

<Swatch {tint} pattern={PATTERN[tint]} large /><span class="sr-only">{tint}</span>
