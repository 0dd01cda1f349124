import { SvelteSet } from 'svelte/reactivity';
import { stepped, type Step } from '$lib/core/outline';
import type { OutlineSection, Project, Section } from '$lib/server/projects';
import { call } from '../frame/client';
import { attempt, change, done, doneWithUndo } from '../frame/toasts.svelte';
import type { Dragged } from './dragging';

/** A line of the tree: a project, a section of it, or what is in no section. */
export interface Node {
  kind: 'project' | 'section' | 'none';
  id: string;
  name: string;
  depth: number;
  sources?: number;
  projectId: string;
  /** Something stands under it. */
  holds: boolean;
}

const FOLDED = 'retexa-folded';

/** The lines of the tree: of one project its sections, else all projects with theirs. */
export function nodesOf(
  outlines: readonly OutlineSection[],
  projects: readonly Project[],
  projectId: string | undefined,
): Node[] {
  const sections = (of: string, deeper: number): Node[] => {
    const some = outlines.filter((section) => section.projectId === of);
    return some.map((section, i) => ({
      kind: 'section',
      id: section.id,
      name: section.name,
      depth: section.depth + deeper,
      sources: section.sources,
      projectId: of,
      holds: (some[i + 1]?.depth ?? 0) > section.depth,
    }));
  };
  const none: Node = {
    kind: 'none',
    id: 'none',
    name: 'In no section',
    depth: 0,
    projectId: projectId ?? '',
    holds: false,
  };
  if (projectId) return [...sections(projectId, 0), none];
  return [
    ...projects
      .filter((project) => !project.putAway)
      .flatMap(({ id, name }): Node[] => {
        const under = sections(id, 1);
        return [{ kind: 'project', id, name, depth: 0, projectId: id, holds: under.length > 0 }, ...under];
      }),
    none,
  ];
}

/** Which lines are folded; remembered in this browser. */
export function folding() {
  let kept: string[] = [];
  try {
    kept = JSON.parse(localStorage.getItem(FOLDED) ?? '[]') as string[];
  } catch {
    // What cannot be read is as if nothing were folded.
  }
  const folded = new SvelteSet<string>(kept);
  return {
    has: (id: string) => folded.has(id),
    fold(id: string, fold: boolean) {
      if (fold) folded.add(id);
      else folded.delete(id);
      localStorage.setItem(FOLDED, JSON.stringify([...folded]));
    },
    /** The lines that are seen. */
    seen(nodes: readonly Node[]): Node[] {
      let within = Infinity;
      return nodes.filter((node) => {
        if (node.depth > within) return false;
        within = folded.has(node.id) ? node.depth : Infinity;
        return true;
      });
    },
  };
}

const many = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'source' : 'sources'}`;

/** What is done to sections and to what is in them; all of it can be taken back. */
export const outlining = {
  async add(projectId: string, parentId: string | null, name: string, before?: string | null) {
    const made = await attempt(() => call<Section>('POST', '/api/sections', { projectId, name, parentId }));
    if (!made) return undefined;
    if (before)
      await attempt(() => call('POST', `/api/sections/${made.id}`, { act: 'move', parentId, before }));
    doneWithUndo(`New section: ${made.name}.`, () =>
      call('POST', `/api/sections/${made.id}`, { act: 'bin' }),
    );
    return made.id;
  },
  rename: (id: string, name: string) =>
    change(`/api/sections/${id}`, { act: 'rename', name }, `The section is called ${name}.`),
  /** What stands in a section from an item on goes into a new one behind it. */
  split: (id: string, at: string, name: string) =>
    change<{ back: { section: string } }>(
      `/api/sections/${id}`,
      { act: 'split', at, name },
      `New section: ${name}.`,
    ),
  /** A section takes in the one behind it. */
  join: (into: Pick<Node, 'id' | 'name'>, other: Pick<Node, 'id' | 'name'>) =>
    change(
      `/api/sections/${into.id}`,
      { act: 'take in', section: other.id },
      `${other.name} is part of ${into.name} now.`,
    ),
  bin: (node: Pick<Node, 'id' | 'name'>) =>
    change(
      `/api/sections/${node.id}`,
      { act: 'bin' },
      `${node.name} is in the bin. Its sources stay in the project.`,
    ),
  move: (id: string, spot: { parentId: string | null; before: string | null }, name: string) =>
    change(`/api/sections/${id}`, { act: 'move', ...spot }, `Moved: ${name}.`),
  /** Takes a section one step; nothing where it cannot go. */
  step(sections: readonly OutlineSection[], id: string, step: Step) {
    const one = sections.find((section) => section.id === id);
    const spot =
      one &&
      stepped(
        sections.filter((s) => s.projectId === one.projectId),
        id,
        step,
      );
    return spot && outlining.move(id, spot, one.name);
  },
  place: (node: Pick<Node, 'id' | 'name'>, ids: readonly string[]) =>
    change<{ changed: number; back?: unknown }>(
      `/api/sections/${node.id}/sources`,
      { act: 'place', ids },
      ({ changed }) =>
        changed ? `${many(changed)} placed in ${node.name}.` : `All of them are in ${node.name} already.`,
    ),
  takeOut: (node: Pick<Node, 'id' | 'name'>, ids: readonly string[]) =>
    change<{ changed: number; back?: unknown }>(
      `/api/sections/${node.id}/sources`,
      { act: 'take out', ids },
      ({ changed }) =>
        changed
          ? `${many(changed)} taken out of ${node.name}.`
          : `None of them stands right under ${node.name}.`,
    ),
  order: (sectionId: string, ids: readonly string[], before: string | null) =>
    change(`/api/sections/${sectionId}/sources`, { act: 'order', ids, before }, `${many(ids.length)} moved.`),
  async file(project: Pick<Node, 'id' | 'name'>, ids: readonly string[]) {
    const path = '/api/sources/file';
    const filed = await attempt(() =>
      call<{ changed: string[] }>('POST', path, { ids, projectId: project.id, filed: true }),
    );
    if (!filed) return;
    if (filed.changed.length === 0) done(`All of them were in ${project.name} already.`);
    else
      doneWithUndo(`Filed in ${project.name}.`, () =>
        call('POST', path, { ids: filed.changed, projectId: project.id, filed: false }),
      );
  },
  /** Something is let go over a line. */
  drop(nodes: readonly Node[], node: Node, what: Dragged, operation: string) {
    if (what.kind === 'sources')
      return void (node.kind === 'project'
        ? outlining.file(node, what.ids)
        : outlining.place(node, what.ids));
    if (what.kind !== 'section') return undefined;
    const name = nodes.find((n) => n.id === what.id)?.name ?? '';
    const parent = (of: Node) => {
      const at = nodes.indexOf(of);
      return nodes.slice(0, at).findLast((n) => n.depth === of.depth - 1 && n.kind === 'section')?.id ?? null;
    };
    if (operation === 'combine')
      return void outlining.move(
        what.id,
        { parentId: node.kind === 'project' ? null : node.id, before: null },
        name,
      );
    const at = nodes.indexOf(node);
    const after = nodes
      .slice(at + 1)
      .find((n) => n.depth <= node.depth && n.projectId === node.projectId && n.kind === 'section');
    const before = operation === 'reorder-before' ? node : after?.depth === node.depth ? after : undefined;
    return void outlining.move(what.id, { parentId: parent(node), before: before?.id ?? null }, name);
  },
};

/** Where some sources can be placed: every project and, under it, its sections. What each does can be taken back. */
export const placesFor = (
  projects: readonly Project[],
  outlines: readonly OutlineSection[],
  ids: readonly string[],
): { text: string; depth?: number; act: () => unknown }[] =>
  projects.flatMap((project) => [
    { text: project.name, act: () => outlining.file(project, ids) },
    ...outlines
      .filter((one) => one.projectId === project.id)
      .map((one) => ({
        text: `§ ${one.name}`,
        depth: one.depth + 1,
        act: () => outlining.place(one, ids),
      })),
  ]);
