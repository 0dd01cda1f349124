<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import { get } from 'svelte/store';
  import { isOwn, keyOf, thinness, type ItemKey } from '$lib/core/outline';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import { isTyping } from '../frame/client';
  import { renewed } from '../frame/live.svelte';
  import { allows, Button } from '../kit';
  import { gridAct } from '../kit/grid-keys';
  import { virtualRows } from '../kit/virtual-rows.svelte';
  import { dragging } from './dragging';
  import { itemsOf } from './items.svelte';
  import { linesOf, seenOf, spotAfter, spotStepped, standingsOf, type ItemStep, type Line } from './lines';
  import { lineWriting, type Blank } from './line-writing.svelte';
  import { movesOf } from './moves.svelte';
  import OutlineLine from './OutlineLine.svelte';
  import { folding, outlining } from './tree.svelte';
  import Writing from './Writing.svelte';

  interface Props {
    projectId: string;
    sections: OutlineSection[];
    items: OutlineItem[];
    /** The section one is in, by its id: what is put from the shelf goes there. */
    here?: string | undefined;
    /** The section to go to, by its id. */
    goTo?: string;
  }
  /** The outline of a project: its sections, and under each what stands in it. One writes, moves and fills them by keys or by dragging. */
  let { projectId, sections, items, here = $bindable(), goTo = '' }: Props = $props();

  const acts = itemsOf(() => projectId);
  const fold = folding();
  /** Who may only read it walks through it. */
  const edits = $derived(allows('edit'));
  const lines = $derived(linesOf(sections, items));
  const standing = $derived(standingsOf(sections, items));
  const bare = $derived(new Set([...standing.values()].flatMap((s) => s.bare)));

  const writing = lineWriting({
    projectId: untrack(() => projectId),
    edits: () => edits,
    lines: () => lines,
    sections: () => sections,
    items: () => items,
    acts,
    fold,
    current: () => current,
    focusOn,
    async show(key, blank) {
      await tick();
      at = key;
      if (!blank) return;
      await tick();
      const i = shown.findIndex((line) => line.kind === 'blank');
      if (i !== -1) get(virtual).scrollToIndex(i, { align: 'auto' });
    },
  });
  const shown = $derived(writing.among(seenOf(lines, fold.has)));

  let at = $state('');
  const index = $derived(
    Math.max(
      0,
      shown.findIndex((line) => line.key === at),
    ),
  );
  const current = $derived.by((): Line | undefined => {
    const line = shown[index];
    return line?.kind === 'blank' ? undefined : line;
  });
  const chosen = new SvelteSet<string>();
  // What is gone is not selected any more.
  $effect(() => {
    const there = new Set(items.map(keyOf));
    untrack(() => [...chosen].filter((key) => !there.has(key)).forEach((key) => chosen.delete(key)));
  });
  const sectionOf = (line: Line | undefined) =>
    line && sections.find((s) => s.id === (line.kind === 'section' ? line.key : line.item.sectionId));
  $effect(() => {
    here = sectionOf(current)?.id ?? sections[0]?.id;
  });

  $effect(() => {
    if (goTo) void untrack(() => focusOn(goTo));
  });

  let scroller: HTMLElement | undefined = $state();
  const { virtual, measure } = virtualRows({
    scroller: () => scroller,
    count: () => shown.length,
    height: () => 46,
  });
  async function focusOn(key: string | undefined, done: Promise<unknown> = Promise.resolve()) {
    if (key === undefined) return;
    at = key;
    await done;
    await tick();
    const i = shown.findIndex((line) => line.key === key);
    if (i === -1) return;
    get(virtual).scrollToIndex(i, { align: 'auto' });
    await tick();
    requestAnimationFrame(() =>
      scroller
        ?.querySelector<HTMLElement>(`[data-line="${CSS.escape(key)}"]`)
        ?.focus({ preventScroll: true }),
    );
  }

  /** What an act is about: all items selected, if the one that is current is among them. */
  function meant(): ItemKey[] {
    if (current?.kind !== 'item') return [];
    if (!chosen.has(current.key)) return [current.item];
    return items.filter((item) => chosen.has(keyOf(item)));
  }
  async function moveTo(going: ItemKey[], to: { sectionId: string; before: string | null } | undefined) {
    const first = going[0];
    if (!first || !to) return;
    const following = current?.kind === 'item' ? current.item.ref : first.ref;
    const made = await acts.move(going, to);
    if (!made) return;
    const again = going.filter((item) => chosen.delete(keyOf(item)));
    for (const { ref } of again) chosen.add(keyOf({ sectionId: to.sectionId, ref }));
    fold.fold(to.sectionId, false);
    await focusOn(keyOf({ sectionId: to.sectionId, ref: following }), renewed());
  }
  const STEPS = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' } as const;
  const ITEM_STEPS: Record<keyof typeof STEPS, ItemStep> = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'after', ArrowLeft: 'before' }; // prettier-ignore
  async function step(key: keyof typeof STEPS) {
    if (current?.kind === 'item')
      return moveTo(meant(), spotStepped(meant(), ITEM_STEPS[key], sections, items));
    if (current?.kind !== 'section') return;
    const { id } = current.section;
    await outlining.step(sections, id, STEPS[key]);
    await renewed();
    const parent = sections.find((s) => s.id === id)?.parentId;
    if (parent) fold.fold(parent, false);
    await focusOn(id);
  }
  async function takeOut() {
    if (!current) return;
    const next = shown.slice(index + 1).find((line) => line.depth <= current.depth) ?? shown[index - 1];
    if (current.kind === 'section') await outlining.bin({ id: current.key, name: current.section.name });
    else await acts.takeOut(meant());
    await focusOn(next?.key, renewed());
  }
  /** Puts what comes from the shelf, or from elsewhere, at the line one is at. */
  export async function put(
    kind: 'source' | 'passage',
    refs: string[],
    line: Line | undefined = current ?? lines[0],
  ) {
    const section = sectionOf(line);
    if (!line || !section || refs.length === 0) return;
    fold.fold(section.id, false);
    const to = spotAfter(line, items);
    const made = await acts.put(
      refs.map((ref) => ({ ref, kind })),
      to,
      section.name,
    );
    if (made) await focusOn(keyOf({ sectionId: section.id, ref: refs.at(-1)! }), renewed());
    return made;
  }

  export const newSection = (): void => writing.newSection();
  const beforeCurrent = $derived.by(() => {
    if (current?.kind !== 'section') return undefined;
    const { id, parentId } = current.section;
    const beside = sections.filter((s) => s.parentId === parentId);
    return beside[beside.findIndex((s) => s.id === id) - 1];
  });
  async function joinSection() {
    const into = beforeCurrent;
    if (!into || current?.kind !== 'section') return;
    await outlining.join(into, current.section);
    await focusOn(into.id, renewed());
  }
  const turn = () =>
    current?.kind === 'item' && isOwn(current.item.kind)
      ? acts.write(
          current.item,
          current.item.words ?? '',
          current.item.kind === 'question' ? 'sentence' : 'question',
        )
      : undefined;

  let anchor = 0;
  function extend(to: number) {
    for (let i = Math.min(anchor, to); i <= Math.max(anchor, to); i++)
      if (shown[i]?.kind === 'item') chosen.add(shown[i]!.key);
  }
  /** What was pressed is done one after the other: who types fast is ahead of what is being kept. */
  let doing: Promise<unknown> = Promise.resolve();
  const later = (work: () => unknown) => (doing = doing.then(work, work));
  function onkey(event: KeyboardEvent) {
    if (event.defaultPrevented || isTyping(event)) return;
    const target = event.target as HTMLElement;
    if (!scroller?.contains(target) || target.closest('a, button')) return;
    const { key, altKey, shiftKey, ctrlKey, metaKey } = event;
    const act = ((): (() => unknown) | undefined => {
      if (ctrlKey || metaKey) return undefined;
      if (altKey)
        return edits && shiftKey && key in STEPS ? () => step(key as keyof typeof STEPS) : undefined;
      if (!edits && ['Enter', 'F2', 'Delete'].includes(key)) return undefined;
      if (key === 'Enter') return shiftKey ? writing.newSection : () => writing.below(current ?? lines[0]);
      if (key === 'F2') return writing.change;
      if (key === 'Delete') return takeOut;
      if (key === 'ArrowRight' && current?.kind === 'section')
        return () => (fold.has(current.key) ? fold.fold(current.key, false) : focusOn(shown[index + 1]?.key));
      if (key === 'ArrowLeft')
        return current?.kind === 'section' && current.holds && !fold.has(current.key)
          ? () => fold.fold(current.key, true)
          : () => focusOn(shown.slice(0, index).findLast((line) => line.depth < (current?.depth ?? 0))?.key);
      const grid = gridAct(event, index, shown.length, Math.floor((scroller?.clientHeight ?? 600) / 46) - 1);
      if (grid?.kind === 'move')
        return () => {
          if (!grid.extends) anchor = grid.to;
          else extend(grid.to);
          return focusOn(shown[grid.to]?.key);
        };
      if (grid?.kind === 'none') return () => chosen.clear();
      if (grid?.kind === 'select' && current?.kind === 'item')
        return () => {
          anchor = index;
          if (!chosen.delete(current.key)) chosen.add(current.key);
        };
      return undefined;
    })();
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    later(act);
  }

  const moves = movesOf({
    projectId: untrack(() => projectId),
    edits: () => edits,
    sections: () => sections,
    items: () => items,
    chosen,
    acts,
    moveTo,
  });
  const click = (event: MouseEvent, line: Line | Blank, i: number) => {
    if (line.kind === 'blank' || (event.target as HTMLElement).closest('a')) return;
    at = line.key;
    if (event.shiftKey) extend(i);
    else anchor = i;
    if (event.ctrlKey || event.metaKey) {
      if (line.kind === 'item' && !chosen.delete(line.key)) chosen.add(line.key);
    } else if (line.kind === 'section' && (event.target as HTMLElement).closest('.sign'))
      fold.fold(line.key, !fold.has(line.key));
  };
</script>

{#snippet field(label: string, words: string, name: boolean)}
  <Writing
    {label}
    {words}
    {name}
    onkeep={(text, then) => void later(() => writing.keep(text, then))}
    onjoin={(text) => void later(() => writing.join(text))}
    typed={writing.typed}
    theirs={writing.open?.what === 'words' ? writing.open.theirs : undefined}
    ontype={writing.type}
    onleave={writing.leave}
  />
{/snippet}

{#if edits || chosen.size}
  <div class="acts" role="group" aria-label="What to do">
    {#if edits}{@render writingActs()}{/if}
    {#if chosen.size}<span class="small-label">{chosen.size} selected</span>
      <Button small look="quiet" onclick={() => chosen.clear()}>None</Button>{/if}
  </div>
{/if}
{#snippet writingActs()}
  <Button
    small
    title="A sentence of your own below this line (Enter)"
    disabled={!lines.length}
    onclick={() => writing.below(current ?? lines[0])}>Write a sentence</Button
  >
  <Button small title="A section beside this one (Shift+Enter)" onclick={writing.newSection}
    >New section</Button
  >
  {#if current?.kind === 'section'}
    <Button small title="Call it otherwise (F2)" onclick={writing.change}>Rename</Button>
    <Button small title="Put it in the bin (Del)" onclick={takeOut}>Bin</Button>
    {#if beforeCurrent}
      <Button small title="What stands in it becomes part of {beforeCurrent.name}" onclick={joinSection}
        >Join to the one before</Button
      >
    {/if}
  {:else if current}
    {#if isOwn(current.item.kind)}
      <Button small title="Write it otherwise (F2)" onclick={writing.change}>Edit</Button>
      <Button small onclick={turn}
        >{current.item.kind === 'question' ? 'Make it a sentence' : 'Make it a question'}</Button
      >
    {/if}
    <Button small title="What stands from here on goes into a section of its own" onclick={writing.split}
      >Begin a section here</Button
    >
    <Button small title="Take out of the section (Del)" onclick={takeOut}
      >{meant().length > 1 ? `Take out ${meant().length}` : 'Take out'}</Button
    >
  {/if}
  {#if current}
    <span class="steps">
      {#each [['ArrowUp', '↑', 'up'], ['ArrowDown', '↓', 'down'], ['ArrowLeft', '←', current.kind === 'section' ? 'out' : 'to the section before'], ['ArrowRight', '→', current.kind === 'section' ? 'under the one before' : 'to the section after']] as const as [key, sign, words] (key)}
        <Button
          small
          look="quiet"
          aria-label="Move {words}"
          title="Move {words} (Alt+Shift+{sign})"
          onclick={() => step(key)}>{sign}</Button
        >
      {/each}
    </span>
  {/if}
{/snippet}
<div
  class="lines"
  bind:this={scroller}
  role="tree"
  aria-label="Outline"
  aria-multiselectable="true"
  tabindex="-1"
  onkeydown={onkey}
>
  <div style="height: {$virtual.getTotalSize()}px; position: relative" role="presentation">
    {#each $virtual.getVirtualItems() as row (row.index)}
      {@const line = shown[row.index]}
      {#if line}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          class="line {line.kind}"
          class:current={line.key === current?.key}
          class:chosen={chosen.has(line.key)}
          role="treeitem"
          aria-level={line.depth + 1}
          aria-expanded={line.kind === 'section' && line.holds ? !fold.has(line.key) : undefined}
          aria-selected={chosen.has(line.key)}
          tabindex={row.index === index ? 0 : -1}
          data-index={row.index}
          data-line={line.key}
          use:measure
          use:dragging={moves.of(line)}
          onclick={(e) => click(e, line, row.index)}
          ondblclick={() => {
            at = line.key;
            writing.change();
          }}
          onfocus={() => {
            if (line.kind !== 'blank') at = line.key;
          }}
          style="transform: translateY({row.start}px); padding-left: {14 + line.depth * 20}px"
        >
          {#if line.kind === 'blank'}
            {@render field(
              writing.open?.what === 'new' ? 'A sentence of your own' : 'Name of the section',
              '',
              writing.open?.what !== 'new',
            )}
          {:else if writing.at(line.key)}
            {@render field(
              line.kind === 'section' ? 'Name of the section' : 'A sentence of your own',
              writing.wordsOf(line.key),
              line.kind === 'section',
            )}
          {:else}
            {@const of = line.kind === 'section' ? standing.get(line.key) : undefined}
            <OutlineLine
              {line}
              folded={fold.has(line.key)}
              standing={of}
              thin={of && thinness(of)}
              bare={line.kind === 'item' && bare.has(line.item.ref)}
            />
          {/if}
        </div>
      {/if}
    {/each}
  </div>
</div>

<style>
  .steps {
    display: inline-flex;
    gap: 6px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    min-height: 45px;
    padding: 7px 26px;
    border-bottom: 1px solid var(--rule);
  }
  .lines {
    flex: 1;
    min-height: 0;
    overflow: auto;
    background: var(--page);
  }
  .lines:focus {
    outline: none;
  }
  .line {
    position: absolute;
    top: 0;
    left: 0;
    display: flex;
    gap: 10px;
    width: 100%;
    padding: 7px 18px 7px 14px;
    border-left: 3px solid transparent;
    cursor: default;
  }
  .line.section {
    padding-top: 12px;
    border-bottom: 1px solid var(--rule);
  }
  .line:focus-visible {
    outline-offset: -2px;
  }
  .current {
    border-left-color: var(--thread);
    background: var(--row-chosen);
  }
  .chosen {
    background: var(--thread-soft);
  }
  .line:global([data-drop='combine']) {
    box-shadow: inset 0 0 0 2px var(--thread);
  }
  .line:global([data-drop='reorder-before']) {
    box-shadow: inset 0 2px 0 var(--thread);
  }
  .line:global([data-drop='reorder-after']) {
    box-shadow: inset 0 -2px 0 var(--thread);
  }
</style>
