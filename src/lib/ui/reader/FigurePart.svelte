<script lang="ts">
  import type { Box } from '$lib/core/figures';
  import type { Tint } from '$lib/core/passages';
  import { Button, Input, Textarea } from '../kit';
  import FigureDrawing from './FigureDrawing.svelte';
  import type { FigureSaid } from './figuring.svelte';

  interface Props {
    /** The figure, with what is said of it. */
    figure: FigureSaid;
    caption: string;
    /** Where a place in the document is shown as a picture. */
    address: (place: FigureSaid['place']) => string;
    tint: Tint;
    wide: boolean;
    onwide: (wide: boolean) => void;
  }
  /** A figure in its sheet: the picture to draw on, its number, its caption, and what it shows in words. */
  let { figure = $bindable(), caption = $bindable(), address, tint, wide, onwide }: Props = $props();
  const id = $props.id();
  let failed = $state(false);
  let edges = $state(false);

  /** The edges of the box, in hundredths of what it is drawn on. */
  const EDGES = ['Left', 'Top', 'Right', 'Bottom'] as const;
  const hundredths = ({ x, y, width, height }: Box) =>
    [x, y, x + width, y + height].map((n) => Math.round(n * 1_000) / 10);
  function setEdge(which: number, value: number) {
    const at = hundredths(figure.place.box);
    at[which] = Math.min(100, Math.max(0, value));
    const [left, top, right, bottom] = at.map((n) => n / 100) as [number, number, number, number];
    if (!(right - left >= 0.01 && bottom - top >= 0.01)) return;
    const box = { x: left, y: top, width: right - left, height: bottom - top };
    failed = false;
    figure = { ...figure, place: { ...figure.place, box } };
  }
</script>

{#if failed}<p class="pencil-red">
    The figure could not be cut out of the document. Draw its box again.
  </p>{/if}
<FigureDrawing
  src={address(figure.place)}
  alt={figure.alt || caption || 'The figure'}
  bind:drawing={figure.drawing}
  {tint}
  most={wide ? 520 : 250}
  onfail={() => (failed = true)}
>
  {#snippet more()}
    <Button look="bare" onclick={() => onwide(!wide)}>{wide ? 'Smaller' : 'Larger'}</Button>
    <Button look="bare" aria-expanded={edges} onclick={() => (edges = !edges)}>Edges…</Button>
  {/snippet}
</FigureDrawing>
{#if edges}
  <div class="edges" role="group" aria-label="Edges of the box, in hundredths of the page">
    {#each EDGES as edge, i (edge)}<label
        ><span class="small-label">{edge}, %</span><Input
          type="number"
          min="0"
          max="100"
          step="0.5"
          value={String(hundredths(figure.place.box)[i])}
          onchange={(e) => setEdge(i, e.currentTarget.valueAsNumber)}
        /></label
      >{/each}
  </div>
{/if}
<div class="line">
  <label class="number"
    ><span class="small-label">Number</span><Input bind:value={figure.number} placeholder="Figure 3" /></label
  >
  <label class="grow"
    ><span class="small-label">Caption</span><Textarea
      rows="2"
      class="serif"
      bind:value={caption}
      placeholder="As it is printed"
    ></Textarea></label
  >
</div>
<label
  ><span class="small-label">What it shows</span><Input
    bind:value={figure.alt}
    aria-describedby={figure.alt.trim() ? undefined : `${id}-alt`}
    placeholder="In words, for those who do not see it"
  /></label
>
{#if !figure.alt.trim()}<p id="{id}-alt" class="small-label">
    Printed as the picture’s alternative text.
  </p>{/if}

<style>
  .line {
    display: flex;
    gap: 8px;
  }
  .number {
    flex: none;
    width: 110px;
  }
  .grow {
    flex: 1;
  }
  .edges {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 8px;
  }
</style>
