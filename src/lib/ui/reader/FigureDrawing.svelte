<script lang="ts">
  import { onMount, type Snippet } from 'svelte';
  import { MOST_SHAPES, type Shape } from '$lib/core/figures';
  import { TINTS, type Tint } from '$lib/core/passages';
  import { Button, Input } from '../kit';
  import {
    moved,
    newShapeId,
    openStage,
    stretched,
    TOOLS,
    type DrawingStage,
    type Tool,
  } from './drawing-stage';
  import TintSwatch from './TintSwatch.svelte';

  interface Props {
    /** The address of the picture. */
    src: string;
    alt: string;
    drawing: Shape[];
    /** The tint things are drawn in first. */
    tint: Tint;
    /** How high the picture is at most, in pixels. */
    most: number;
    /** Told when the picture cannot be had. */
    onfail?: () => void;
    /** What stands beside the inks. */
    more?: Snippet;
  }
  /** A picture with a layer over it on which is drawn: with the pointer, or by keys once the picture has the focus. */
  let { src, alt, drawing = $bindable(), tint, most, onfail, more }: Props = $props();

  const NAMES: Record<Tool, string> = {
    hold: 'Take hold',
    arrow: 'Arrow',
    box: 'Box',
    line: 'Line',
    words: 'Words',
    stroke: 'Freehand',
  };
  const SHAPES: Record<Shape['shape'], string> = {
    arrow: 'Arrow',
    box: 'Box',
    line: 'Line',
    words: 'Words',
    stroke: 'Freehand line',
  };
  /** How far a key moves what is chosen, in parts of the picture. */
  const STEP = 0.01;

  let tool = $state<Tool>('hold');
  // svelte-ignore state_referenced_locally
  let ink = $state<Tint>(tint);
  let chosen = $state<string | undefined>();
  let before = $state.raw<Shape[][]>([]);
  let layer: HTMLDivElement | undefined = $state();
  let words: HTMLInputElement | undefined = $state();
  let [width, height] = $state([0, 0]);
  let stage: DrawingStage | undefined = $state.raw();
  const held = $derived(drawing.find((s) => s.id === chosen));

  onMount(() => {
    let closed = false;
    void openStage(layer!, { put, choose: (id) => (chosen = id) }).then((made) => {
      if (closed) made.close();
      else stage = made;
    });
    return () => {
      closed = true;
      stage?.close();
    };
  });
  $effect(() => {
    if (width && height) stage?.show({ drawing, chosen, tool, tint: ink, width, height });
  });

  function set(next: Shape[]) {
    before = [...before.slice(-49), drawing];
    drawing = next;
  }
  function put(shape: Shape) {
    const there = drawing.some((s) => s.id === shape.id);
    if (!there && drawing.length >= MOST_SHAPES) return;
    set(there ? drawing.map((s) => (s.id === shape.id ? shape : s)) : [...drawing, shape]);
    chosen = shape.id;
    if (there) return;
    tool = 'hold';
    if (shape.shape === 'words') requestAnimationFrame(() => words?.select());
  }
  function undo() {
    const last = before.at(-1);
    if (!last) return;
    before = before.slice(0, -1);
    drawing = last;
  }
  const remove = () => {
    set(drawing.filter((s) => s.id !== chosen));
    chosen = undefined;
  };
  /** Words are not undone letter by letter. */
  const reword = (text: string) =>
    (drawing = drawing.map((s) =>
      s.id === chosen && s.shape === 'words' ? { ...s, text: text || ' ' } : s,
    ));

  /** One drawn by keys: in the middle, to be moved from there. */
  function add(kind: Exclude<Tool, 'hold'>) {
    const id = newShapeId();
    if (kind === 'words') put({ id, tint: ink, shape: 'words', at: [0.4, 0.45], text: '…' });
    else if (kind === 'stroke')
      put({ id, tint: ink, shape: 'stroke', points: [[0.35, 0.5], [0.65, 0.5]] }); // prettier-ignore
    else put({ id, tint: ink, shape: kind, from: [0.35, 0.35], to: [0.65, 0.65] });
  }

  const ARROWS: Record<string, [number, number]> = {
    ArrowLeft: [-STEP, 0],
    ArrowRight: [STEP, 0],
    ArrowUp: [0, -STEP],
    ArrowDown: [0, STEP],
  };
  function onkeydown(event: KeyboardEvent) {
    const by = ARROWS[event.key];
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') undo();
    else if (event.key === 'Enter' && tool !== 'hold') add(tool);
    else if (held && by) put(event.shiftKey ? stretched(held, ...by) : moved(held, ...by));
    else if (held && (event.key === 'Delete' || event.key === 'Backspace')) remove();
    else if (event.key === 'Escape' && (chosen || tool !== 'hold')) [chosen, tool] = [undefined, 'hold'];
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="tools" role="toolbar" aria-label="Draw over the figure">
  {#each TOOLS as t (t)}<Button
      look="bare"
      aria-pressed={tool === t}
      onclick={(e) => {
        tool = t;
        // By keys there is no place to point at: it is put in the middle.
        if (e.detail === 0 && t !== 'hold') add(t);
      }}>{NAMES[t]}</Button
    >{/each}
</div>
<div class="tools">
  <span class="inks" role="group" aria-label="Ink">
    {#each TINTS as t (t)}<Button
        look="bare"
        aria-pressed={ink === t}
        aria-label="Draw as {t}"
        title={t.charAt(0).toUpperCase() + t.slice(1)}
        onclick={() => {
          ink = t;
          if (held) put({ ...held, tint: t });
        }}><TintSwatch tint={t} /></Button
      >{/each}
  </span>
  <Button look="bare" disabled={before.length === 0} onclick={undo}>Undo</Button>
  {@render more?.()}
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="picture"
  class:drawing={tool !== 'hold'}
  role="application"
  tabindex="0"
  aria-label="The figure; arrow keys move what is chosen, with Shift its end, Delete takes it away"
  {onkeydown}
>
  <img
    {src}
    {alt}
    style="max-height: {most}px"
    bind:clientWidth={width}
    bind:clientHeight={height}
    onerror={onfail}
    draggable="false"
  />
  <div class="layer" bind:this={layer}></div>
</div>
{#if drawing.length}
  <div class="drawn" role="group" aria-label="What is drawn">
    {#each drawing as s, i (s.id)}<Button
        look="bare"
        aria-pressed={s.id === chosen}
        onclick={() => ([chosen, tool] = [s.id === chosen ? undefined : s.id, 'hold'])}
        >{i + 1}. {s.shape === 'words' ? `“${s.text}”` : SHAPES[s.shape]}</Button
      >{/each}
  </div>
{/if}
{#if held}
  <div class="held">
    {#if held.shape === 'words'}<Input
        aria-label="Words over the figure"
        bind:element={words}
        value={held.text}
        oninput={(e) => reword(e.currentTarget.value)}
      />{/if}
    <Button small onclick={remove}>Take away</Button>
    <span class="small-label">Drag it, or move it by arrow keys; with Shift its end</span>
  </div>
{/if}

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    align-items: center;
  }
  .tools :global(button),
  .drawn :global(button) {
    padding: 2px 8px;
    border: 1px solid transparent;
    border-radius: 6px;
    font-size: 12.5px;
    font-weight: 550;
    cursor: pointer;
  }
  .tools :global(button[aria-pressed='true']),
  .drawn :global(button[aria-pressed='true']) {
    border-color: var(--thread);
    background: var(--thread-soft);
  }
  .tools :global(button:disabled) {
    color: var(--ink-3);
    cursor: default;
  }
  .inks {
    display: flex;
    margin-right: 4px;
    padding-right: 4px;
    border-right: 1px solid var(--rule);
  }
  .inks :global(button) {
    padding: 2px 4px;
  }
  .picture {
    position: relative;
    display: grid;
    justify-self: center;
    width: fit-content;
    border: 1px solid var(--rule);
    background: #fff;
  }
  .picture.drawing {
    cursor: crosshair;
  }
  .picture img {
    grid-area: 1 / 1;
    max-width: 100%;
  }
  .layer {
    position: absolute;
    inset: 0;
    touch-action: none;
  }
  .drawn,
  .held {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
  }
</style>
