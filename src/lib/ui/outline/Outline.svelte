<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import { get } from 'svelte/store';
  import { isOwn, keyOf, thinness, type ItemKey } from '$lib/core/outline';
  import type { OutlineItem, OutlineSection } from '$lib/server/projects';
  import { isTyping } from '../frame/client';
  import { drafts } from '../frame/drafts';
  import { renew, renewed } from '../frame/live.svelte';
  import { allows, Button } from '../kit';
  import { gridAct } from '../kit/grid-keys';
  import { virtualRows } from '../kit/virtual-rows.svelte';
  import { dragging, type Dragged, type Dragging } from './dragging';
  import { itemsOf } from './items.svelte';
  import { linesOf, seenOf, spotAfter, spotStepped, standingsOf, type ItemStep, type Line } from './lines';
  import OutlineLine from './OutlineLine.svelte';
  import { folding, nodesOf, outlining } from './tree.svelte';
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

  /** What is being written: a sentence that is there, a new one below a line, or the name of a section. */
  type Open =
    /** `began` is what stood there when one began, `theirs` what somebody wrote there meanwhile. */
    | { what: 'words'; key: string; began: string; theirs?: string }
    | { what: 'new'; key: string }
    | { what: 'rename'; key: string }
    | { what: 'section'; key: string; parentId: string | null; before: string | null }
    /** A section that begins with an item that is there. */
    | { what: 'split'; key: string };
  // What was typed and not kept is there again.
  const DRAFT = untrack(() => `outline ${projectId}`);
  const left = drafts.find<{ open: Open; words: string }>(DRAFT);
  let open = $state.raw<Open | undefined>(left && untrack(() => (edits ? placed(left.open) : undefined)));
  let typed = $state.raw(left?.words);
  /** Where one goes on writing; what stood there may be gone, and what was typed is not lost for it. */
  function placed(was: Open): Open {
    const there = was.what === 'section' || lines.some((line) => line.key === was.key);
    return there ? was : { what: 'new', key: lines[0]?.key ?? '' };
  }
  const close = () => {
    open = typed = undefined;
    drafts.drop(DRAFT);
  };
  /** A line to write in, below another. */
  type Blank = { kind: 'blank'; key: string; depth: number };
  const shown = $derived.by((): (Line | Blank)[] => {
    const seen = seenOf(lines, fold.has);
    if (!open || open.what === 'words' || open.what === 'rename') return seen;
    const { key, what } = open;
    let i = seen.findIndex((line) => line.key === key);
    const depth = seen[i]?.depth ?? 0;
    if (what === 'section' && seen[i])
      while (seen[i + 1] && (seen[i + 1]!.depth > depth || seen[i + 1]!.kind === 'item')) i++;
    if (what === 'split') i--;
    const under = what === 'new' && seen[i]?.kind === 'section' ? 1 : 0;
    return [
      ...seen.slice(0, i + 1),
      { kind: 'blank', key: 'blank', depth: depth + under },
      ...seen.slice(i + 1),
    ];
  });

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

  export function newSection() {
    const section = sectionOf(current);
    const beside = sections.filter((s) => s.parentId === (section?.parentId ?? null));
    const next = section && beside[beside.findIndex((s) => s.id === section.id) + 1];
    const after = section?.id ?? lines.at(-1)?.key ?? '';
    open = { what: 'section', key: after, parentId: section?.parentId ?? null, before: next?.id ?? null };
  }
  const openWords = (key: string) => {
    open = { what: 'words', key, began: wordsOf(key) };
  };
  function write() {
    if (!edits) return;
    if (current?.kind === 'section') open = { what: 'rename', key: current.key };
    else if (current && isOwn(current.item.kind)) openWords(current.key);
  }
  const writeBelow = (line: Line | undefined) => {
    if (!line) return;
    if (line.kind === 'section') fold.fold(line.key, false);
    open = { what: 'new', key: line.key };
  };
  /** Goes on writing below a line that has just come. */
  async function goOnBelow(key: string) {
    await renewed();
    await tick();
    at = key;
    writeBelow(lines.find((line) => line.key === key));
    const i = shown.findIndex((line) => line.kind === 'blank');
    if (i !== -1) get(virtual).scrollToIndex(i, { align: 'auto' });
  }
  /** What could not be kept is there to be written on. */
  function again(what: Open, words: string) {
    [open, typed] = [placed(what), words];
  }
  /** Keeps what was written; `then` is where one goes on. */
  async function keep(words: string, then: 'stay' | 'below' | { cut: number }) {
    const now = open;
    if (!now) return;
    close();
    const line = lines.find((l) => l.key === now.key);
    const trimmed = words.trim();
    if (now.what === 'section' || now.what === 'rename') {
      const name = trimmed.slice(0, 200);
      if (!name || (now.what === 'rename' && line?.kind === 'section' && name === line.section.name))
        return focusOn(now.key);
      const id =
        now.what === 'section'
          ? await outlining.add(projectId, now.parentId, name, now.before)
          : (await outlining.rename(now.key, name)) && now.key;
      if (!id) return again(now, words);
      return now.what === 'section' && then === 'below' ? goOnBelow(id) : focusOn(id, renewed());
    }
    if (!line) return again(now, words);
    if (now.what === 'split') {
      if (!trimmed || line.kind !== 'item') return focusOn(now.key);
      const { sectionId, ref } = line.item;
      const made = await outlining.split(sectionId, ref, trimmed.slice(0, 200));
      if (!made) return again(now, words);
      return focusOn(keyOf({ sectionId: made.back.section, ref }), renewed());
    }
    if (now.what === 'new') {
      if (!trimmed) return focusOn(now.key);
      const to = spotAfter(line, items);
      const ref = await acts.begin(trimmed, to);
      if (!ref) return again(now, words);
      const key = keyOf({ sectionId: to.sectionId, ref });
      return then === 'below' ? goOnBelow(key) : focusOn(key, renewed());
    }
    if (line.kind !== 'item') return;
    // What somebody wrote meanwhile is not written over unseen.
    const item = { ...line.item, words: now.what === 'words' ? now.began : line.item.words };
    const clash = async () => {
      await renew('projects');
      const theirs = wordsOf(now.key);
      again({ what: 'words', key: now.key, began: theirs, theirs }, words);
    };
    const behind = spotAfter(line, items).before;
    if (typeof then === 'object') {
      const ref = await acts.split(item, words, then.cut, behind);
      if (ref) {
        const key = keyOf({ sectionId: item.sectionId, ref });
        await renewed();
        at = key;
        openWords(key);
      } else await clash();
      return;
    }
    if (trimmed !== item.words && !(await acts.write(item, trimmed, item.kind as 'sentence'))) return clash();
    return then === 'below' ? goOnBelow(line.key) : focusOn(line.key, renewed());
  }
  async function join(words: string) {
    const line = lines.find((l) => l.key === open?.key);
    const was = open;
    if (was?.what !== 'words' || line?.kind !== 'item') return;
    if (words.trim() !== line.item.words) await keep(words, 'stay');
    // It could not be kept, and is being written on.
    if (open && open !== was) return;
    const now = items.find((item) => keyOf(item) === line.key) ?? line.item;
    const here = items.filter((item) => item.sectionId === now.sectionId);
    const before = here[here.findIndex((item) => item.ref === now.ref) - 1];
    const made = acts.join(now, items);
    if (!made || !before) return;
    close();
    await made;
    await renewed();
    at = keyOf(before);
    openWords(keyOf(before));
  }
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
      if (key === 'Enter') return shiftKey ? newSection : () => writeBelow(current ?? lines[0]);
      if (key === 'F2') return write;
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

  const nodes = $derived(nodesOf(sections, [], projectId));
  const nodeOf = (line: Line) => nodes.find((n) => n.id === line.key);
  const moving = (line: Line | Blank): Dragging => ({
    drag: !edits
      ? undefined
      : line.kind === 'section'
        ? () => ({ what: { kind: 'section', id: line.key, projectId }, words: line.section.name })
        : line.kind === 'item'
          ? () => {
              const going = chosen.has(line.key) ? items.filter((i) => chosen.has(keyOf(i))) : [line.item];
              const { passage, source, words } = line.item;
              const one = words ?? (passage?.gist || passage?.exact.slice(0, 60)) ?? source?.label ?? '';
              return { what: { kind: 'items', items: going.map(({ sectionId, ref }) => ({ sectionId, ref })) }, words: going.length === 1 ? one : `${going.length} items` }; // prettier-ignore
            }
          : undefined,
    can: (what) => {
      if (line.kind === 'blank' || !edits) return [];
      if (what.kind !== 'section')
        return line.kind === 'section' ? ['combine'] : ['reorder-before', 'reorder-after'];
      if (line.kind !== 'section' || what.projectId !== projectId || what.id === line.key) return [];
      // A section does not go under itself.
      const from = nodes.findIndex((n) => n.id === what.id);
      const end = nodes.findIndex((n, i) => i > from && n.depth <= nodes[from]!.depth);
      const to = nodes.findIndex((n) => n.id === line.key);
      return to > from && (end === -1 || to < end) ? [] : ['reorder-before', 'reorder-after', 'combine'];
    },
    drop: (what, operation) => line.kind !== 'blank' && void dropped(line, what, operation),
  });
  function dropped(line: Line, what: Dragged, operation: 'reorder-before' | 'reorder-after' | 'combine') {
    if (what.kind === 'section') {
      const node = nodeOf(line);
      return node && outlining.drop(nodes, node, what, operation);
    }
    const to =
      operation === 'reorder-before' && line.kind === 'item'
        ? { sectionId: line.item.sectionId, before: line.item.ref }
        : spotAfter(line, items);
    if (what.kind === 'items') return moveTo(what.items, to);
    const name = sections.find((s) => s.id === to.sectionId)?.name ?? '';
    const kind = what.kind === 'sources' ? 'source' : 'passage';
    return acts.put(
      what.ids.map((ref) => ({ ref, kind })),
      to,
      name,
    );
  }
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
  const wordsOf = (key: string) => {
    const line = lines.find((l) => l.key === key);
    return line?.kind === 'section' ? line.section.name : (line?.item.words ?? '');
  };
</script>

{#snippet field(label: string, words: string, name: boolean)}
  <Writing
    {label}
    {words}
    {name}
    onkeep={(text, then) => void later(() => keep(text, then))}
    onjoin={(text) => void later(() => join(text))}
    {typed}
    theirs={open?.what === 'words' ? open.theirs : undefined}
    ontype={(text) => drafts.keep(DRAFT, { open, words: text })}
    onleave={() => {
      const key = open?.key;
      close();
      void focusOn(key);
    }}
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
    onclick={() => writeBelow(current ?? lines[0])}>Write a sentence</Button
  >
  <Button small title="A section beside this one (Shift+Enter)" onclick={newSection}>New section</Button>
  {#if current?.kind === 'section'}
    <Button small title="Call it otherwise (F2)" onclick={write}>Rename</Button>
    <Button small title="Put it in the bin (Del)" onclick={takeOut}>Bin</Button>
    {#if beforeCurrent}
      <Button small title="What stands in it becomes part of {beforeCurrent.name}" onclick={joinSection}
        >Join to the one before</Button
      >
    {/if}
  {:else if current}
    {#if isOwn(current.item.kind)}
      <Button small title="Write it otherwise (F2)" onclick={write}>Edit</Button>
      <Button small onclick={turn}
        >{current.item.kind === 'question' ? 'Make it a sentence' : 'Make it a question'}</Button
      >
    {/if}
    <Button
      small
      title="What stands from here on goes into a section of its own"
      onclick={() => current && (open = { what: 'split', key: current.key })}>Begin a section here</Button
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
          use:dragging={moving(line)}
          onclick={(e) => click(e, line, row.index)}
          ondblclick={() => {
            at = line.key;
            write();
          }}
          onfocus={() => {
            if (line.kind !== 'blank') at = line.key;
          }}
          style="transform: translateY({row.start}px); padding-left: {14 + line.depth * 20}px"
        >
          {#if line.kind === 'blank'}
            {@render field(
              open?.what === 'new' ? 'A sentence of your own' : 'Name of the section',
              '',
              open?.what !== 'new',
            )}
          {:else if open && open.key === line.key && (open.what === 'words' || open.what === 'rename')}
            {@render field(
              open.what === 'rename' ? 'Name of the section' : 'A sentence of your own',
              wordsOf(line.key),
              open.what === 'rename',
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
