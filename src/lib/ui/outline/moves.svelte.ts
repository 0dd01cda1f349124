import { keyOf, type ItemKey } from '$lib/core/outline';
import type { OutlineItem, OutlineSection } from '$lib/server/projects';
import type { Dragged, Dragging } from './dragging';
import type { itemsOf } from './items.svelte';
import { spotAfter, type Line } from './lines';
import type { Blank } from './line-writing.svelte';
import { nodesOf, outlining } from './tree.svelte';

interface Around {
  projectId: string;
  edits: () => boolean;
  sections: () => OutlineSection[];
  items: () => OutlineItem[];
  /** Keys of the items that are selected. */
  chosen: ReadonlySet<string>;
  acts: ReturnType<typeof itemsOf>;
  moveTo: (going: ItemKey[], to: { sectionId: string; before: string | null } | undefined) => unknown;
}

/** What dragging does in an outline: which line can be dragged, what it takes, and what becomes of what is let go over it. */
export function movesOf({ projectId, edits, sections, items, chosen, acts, moveTo }: Around) {
  const nodes = $derived(nodesOf(sections(), [], projectId));

  function draggedOf(line: Line): { what: Dragged; words: string } {
    if (line.kind === 'section')
      return { what: { kind: 'section', id: line.key, projectId }, words: line.section.name };
    const going = chosen.has(line.key) ? items().filter((i) => chosen.has(keyOf(i))) : [line.item];
    const { passage, source, words } = line.item;
    const one = words ?? (passage?.gist || passage?.exact.slice(0, 60)) ?? source?.label ?? '';
    return {
      what: { kind: 'items', items: going.map(({ sectionId, ref }) => ({ sectionId, ref })) },
      words: going.length === 1 ? one : `${going.length} items`,
    };
  }
  function takes(line: Line, what: Dragged): ReturnType<NonNullable<Dragging['can']>> {
    if (what.kind !== 'section')
      return line.kind === 'section' ? ['combine'] : ['reorder-before', 'reorder-after'];
    if (line.kind !== 'section' || what.projectId !== projectId || what.id === line.key) return [];
    // A section does not go under itself.
    const from = nodes.findIndex((n) => n.id === what.id);
    const end = nodes.findIndex((n, i) => i > from && n.depth <= nodes[from]!.depth);
    const to = nodes.findIndex((n) => n.id === line.key);
    return to > from && (end === -1 || to < end) ? [] : ['reorder-before', 'reorder-after', 'combine'];
  }
  function dropped(line: Line, what: Dragged, operation: 'reorder-before' | 'reorder-after' | 'combine') {
    if (what.kind === 'section') {
      const node = nodes.find((n) => n.id === line.key);
      return node && outlining.drop(nodes, node, what, operation);
    }
    const to =
      operation === 'reorder-before' && line.kind === 'item'
        ? { sectionId: line.item.sectionId, before: line.item.ref }
        : spotAfter(line, items());
    if (what.kind === 'items') return moveTo(what.items, to);
    const name = sections().find((s) => s.id === to.sectionId)?.name ?? '';
    const kind = what.kind === 'sources' ? 'source' : 'passage';
    return acts.put(
      what.ids.map((ref) => ({ ref, kind })),
      to,
      name,
    );
  }
  return {
    /** What a line does in dragging. */
    of: (line: Line | Blank): Dragging =>
      line.kind === 'blank'
        ? {}
        : {
            drag: edits() ? () => draggedOf(line) : undefined,
            can: (what) => (edits() ? takes(line, what) : []),
            drop: (what, operation) => void dropped(line, what, operation),
          },
  };
}
