<script lang="ts">
  import { tick } from 'svelte';
  import type { OutlineSection, Project } from '$lib/server/projects';
  import { Button, Input } from '../kit';
  import { renewed } from '../frame/live.svelte';
  import { narrow, narrowedBy } from '../frame/narrowing';
  import { dragging, type Dragged } from './dragging';
  import { folding, nodesOf, outlining, type Node } from './tree.svelte';

  /** The sections of a project, or of all of them, as a tree beside the list of sources: one chooses, moves and fills them. */
  let {
    outlines,
    projects,
    projectId,
    chosen,
  }: {
    outlines: OutlineSection[];
    projects: Project[];
    projectId: string | undefined;
    /** Ids of the sources selected, which can be placed by keys and buttons. */
    chosen: readonly string[];
  } = $props();

  const fold = folding();
  const nodes = $derived(nodesOf(outlines, projects, projectId));
  const seen = $derived(fold.seen(nodes));
  const shownNow = $derived(narrowedBy('section'));
  let at = $state('');
  const current = $derived(seen.find((n) => n.id === at) ?? seen[0]);
  const section = $derived(current?.kind === 'section' ? current : undefined);
  let tree: HTMLElement | undefined = $state();
  /** What is being named: a section by its id, or a new one after or under another. */
  let naming = $state<{ id?: string; projectId: string; parentId: string | null; before: string | null }>();
  let name = $state('');
  let field: HTMLInputElement | undefined = $state();

  const parentOf = (id: string) => outlines.find((s) => s.id === id)?.parentId ?? null;
  function choose(node: Node) {
    at = node.id;
    if (node.kind === 'project') fold.fold(node.id, !fold.has(node.id));
    else narrow({ section: shownNow === node.id ? undefined : node.id, sort: undefined });
  }
  async function focusOn(id: string | undefined) {
    if (!id) return;
    at = id;
    await renewed();
    await tick();
    tree?.querySelector<HTMLElement>(`[data-node="${CSS.escape(id)}"]`)?.focus();
  }
  async function beginNaming(what: NonNullable<typeof naming>, words = '') {
    [naming, name] = [what, words];
    await tick();
    field?.focus();
    field?.select();
  }
  const rename = () => section && beginNaming({ ...section, parentId: null, before: null }, section.name);
  /** A new section: beside the one that is current, or under it. */
  function add(under: boolean) {
    const project = projectId ?? current?.projectId ?? projects[0]?.id;
    if (!project) return;
    if (!section) return beginNaming({ projectId: project, parentId: null, before: null });
    if (under) return beginNaming({ projectId: project, parentId: section.id, before: null });
    const parentId = parentOf(section.id);
    const beside = outlines.filter((s) => s.projectId === project && s.parentId === parentId);
    const next = beside[beside.findIndex((s) => s.id === section.id) + 1];
    return beginNaming({ projectId: project, parentId, before: next?.id ?? null });
  }
  async function keepName() {
    const what = naming;
    // Leaving the field because it is gone is no second time.
    if (!what) return;
    const words = name.trim();
    // Keys that are pressed meanwhile are the tree's.
    naming = undefined;
    tree?.focus();
    if (!words) return focusOn(at);
    if (what.id) await outlining.rename(what.id, words);
    else {
      const id = await outlining.add(what.projectId, what.parentId, words, what.before);
      if (id) at = id;
    }
    await focusOn(at);
  }
  async function bin() {
    if (!section) return;
    const next = seen[seen.indexOf(section) + 1] ?? seen[seen.indexOf(section) - 1];
    if (shownNow === section.id) narrow({ section: undefined });
    await outlining.bin(section);
    await focusOn(next?.id);
  }

  const STEPS = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' } as const;
  type Pressed = Pick<KeyboardEvent, 'key' | 'altKey' | 'shiftKey'>;
  /** What a key does, as things are now. */
  function actOf({ key, altKey, shiftKey }: Pressed): (() => unknown) | undefined {
    if (!current) return undefined;
    const i = seen.indexOf(current);
    const step = STEPS[key as keyof typeof STEPS];
    if (altKey) {
      if (!shiftKey || !step || !section) return undefined;
      const { id } = section;
      return async () => {
        await outlining.step(outlines, id, step);
        await renewed();
        if (step === 'in') fold.fold(parentOf(id) ?? '', false);
        await focusOn(id);
      };
    }
    const folded = fold.has(current.id);
    const { id, depth, holds } = current;
    switch (key) {
      case 'ArrowDown':
        return () => focusOn(seen[i + 1]?.id);
      case 'ArrowUp':
        return () => focusOn(seen[i - 1]?.id);
      case 'Home':
        return () => focusOn(seen[0]?.id);
      case 'End':
        return () => focusOn(seen.at(-1)?.id);
      case 'ArrowRight':
        return holds ? () => (folded ? fold.fold(id, false) : focusOn(seen[i + 1]?.id)) : undefined;
      case 'ArrowLeft':
        return holds && !folded
          ? () => fold.fold(id, true)
          : () => focusOn(seen.slice(0, i).findLast((n) => n.depth < depth)?.id);
      case 'Enter':
        return shiftKey ? () => add(false) : () => choose(current);
      case ' ':
        return () => choose(current);
      case 'F2':
        return rename;
      case 'Delete':
        return bin;
      default:
        return undefined;
    }
  }
  const OURS = [...Object.keys(STEPS), 'Home', 'End', 'Enter', ' ', 'F2', 'Delete'];
  /** What was pressed is done one after the other: who types fast is ahead of what is being kept. */
  let doing: Promise<unknown> = Promise.resolve();
  function onkey(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || (event.target as HTMLElement).closest('input')) return;
    if (!OURS.includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    const { key, altKey, shiftKey } = event;
    doing = doing.then(() => actOf({ key, altKey, shiftKey })?.());
  }

  const can = (node: Node) => (what: Dragged) => {
    if (what.kind === 'sources') return node.kind === 'none' ? [] : (['combine'] as const).slice();
    if (what.kind !== 'section' || node.kind === 'none' || node.projectId !== what.projectId) return [];
    // A section does not go under itself.
    const from = nodes.findIndex((n) => n.id === what.id);
    const end = nodes.findIndex((n, i) => i > from && n.depth <= nodes[from]!.depth);
    const to = nodes.indexOf(node);
    if (to >= from && (end === -1 || to < end)) return [];
    return node.kind === 'project'
      ? (['combine'] as const).slice()
      : (['reorder-before', 'reorder-after', 'combine'] as const).slice();
  };
</script>

{#snippet nameField()}
  <li class="naming" role="none">
    <form
      onsubmit={(e) => {
        e.preventDefault();
        doing = keepName();
      }}
    >
      <Input
        aria-label="Name of the section"
        placeholder="Name of the section"
        maxlength={200}
        bind:value={name}
        bind:element={field}
        onkeydown={(e: KeyboardEvent) => {
          if (e.key !== 'Escape') return;
          e.stopPropagation();
          naming = undefined;
          void focusOn(at);
        }}
        onblur={() => {
          if (naming) doing = keepName();
        }}
      />
    </form>
  </li>
{/snippet}

<nav class="tree" aria-label="Sections">
  <div class="head">
    <h2>{projectId ? 'Sections' : 'Projects and sections'}</h2>
    {#if projectId || current?.projectId}
      <Button
        small
        look="quiet"
        title="A section beside the one chosen (Shift+Enter in the tree)"
        onclick={() => add(false)}>New section</Button
      >
    {/if}
  </div>
  <ul role="tree" aria-label="Sections" tabindex="-1" bind:this={tree} onkeydown={onkey}>
    {#each seen as node (node.id)}
      {#if naming?.id === node.id}{@render nameField()}{:else}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <li
          role="treeitem"
          data-node={node.id}
          aria-level={node.depth + 1}
          aria-expanded={node.holds ? !fold.has(node.id) : undefined}
          aria-selected={shownNow === node.id}
          tabindex={node.id === current?.id ? 0 : -1}
          class={node.kind}
          style="padding-left: {8 + node.depth * 15}px"
          onclick={() => choose(node)}
          onfocus={() => (at = node.id)}
          use:dragging={{
            drag:
              node.kind === 'section'
                ? () => ({
                    what: { kind: 'section', id: node.id, projectId: node.projectId },
                    words: node.name,
                  })
                : undefined,
            can: can(node),
            drop: (what, operation) => outlining.drop(nodes, node, what, operation),
          }}
        >
          <span class="fold" aria-hidden="true">{node.holds ? (fold.has(node.id) ? '▸' : '▾') : ''}</span>
          <span class="name">{node.name}</span>
          {#if node.sources !== undefined}<span class="n"
              >{node.sources.toLocaleString('en')}<span class="sr-only">
                {node.sources === 1 ? 'source' : 'sources'}</span
              ></span
            >{/if}
        </li>
      {/if}
      {#if naming && !naming.id && (section ? node.id === section.id : node === seen.at(-1))}{@render nameField()}{/if}
    {/each}
    {#if naming && seen.length === 0}{@render nameField()}{/if}
  </ul>
  {#if section}
    <div class="acts" role="group" aria-label="What to do with {section.name}">
      {#if chosen.length}
        <Button small look="main" onclick={() => outlining.place(section, chosen)}
          >Place {chosen.length.toLocaleString('en')} here</Button
        >
      {/if}
      <Button small title="A section under this one" onclick={() => add(true)}>Section under it</Button>
      <Button small title="Call it otherwise (F2)" onclick={rename}>Rename</Button>
      <Button small title="Put it in the bin (Del)" onclick={bin}>Bin</Button>
      {#each [['up', '↑', 'Up'], ['down', '↓', 'Down'], ['in', '→', 'Under the one before'], ['out', '←', 'Out']] as const as [step, sign, words] (step)}
        <Button
          small
          look="quiet"
          aria-label="Move {section.name}: {words.toLowerCase()}"
          title="{words} (Alt+Shift+{sign})"
          onclick={() => outlining.step(outlines, section.id, step)}>{sign}</Button
        >
      {/each}
    </div>
  {:else if outlines.length === 0}
    <p class="hint">
      Sections are the headings of what you will write. Make one, and drag sources onto it, or select some and
      place them here.
    </p>
  {/if}
</nav>

<style>
  .tree {
    display: flex;
    flex: none;
    flex-direction: column;
    gap: 6px;
    width: 244px;
    padding: 10px 8px 10px 12px;
    overflow-y: auto;
    border-right: 1px solid var(--rule);
  }
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }
  h2 {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 650;
  }
  ul:focus {
    outline: none;
  }
  li[role='treeitem'] {
    position: relative;
    display: flex;
    gap: 4px;
    align-items: baseline;
    padding-block: 4px;
    padding-right: 8px;
    border-radius: 5px;
    font-size: 13px;
    line-height: 18px;
    cursor: pointer;
  }
  li[role='treeitem']:hover {
    background: var(--row-chosen);
  }
  li[role='treeitem']:focus-visible {
    outline-offset: -2px;
  }
  li[aria-selected='true'] {
    background: var(--thread-soft);
    font-weight: 600;
  }
  .project .name {
    font-weight: 600;
  }
  .none {
    margin-top: 4px;
    color: var(--ink-2);
    font-style: italic;
  }
  .fold {
    flex: none;
    width: 11px;
    color: var(--ink-3);
    font-size: 10px;
  }
  .name {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .n {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 400;
    font-variant-numeric: tabular-nums;
  }
  li:global([data-drop='combine']) {
    box-shadow: inset 0 0 0 2px var(--thread);
  }
  li:global([data-drop='reorder-before']) {
    box-shadow: inset 0 2px 0 var(--thread);
  }
  li:global([data-drop='reorder-after']) {
    box-shadow: inset 0 -2px 0 var(--thread);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    padding-top: 6px;
    border-top: 1px solid var(--rule);
  }
  .hint {
    color: var(--ink-2);
    font-size: 13px;
  }
  .naming {
    padding: 2px 4px;
  }
  @media (max-width: 900px) {
    .tree {
      width: auto;
      max-height: 28vh;
      border-right: 0;
      border-bottom: 1px solid var(--rule);
    }
  }
</style>
