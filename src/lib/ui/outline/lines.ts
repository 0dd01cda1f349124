import { inOrder, keyOf, standings, type Heading, type ItemKey, type Standing } from '$lib/core/outline';
import { inOwnWords } from '$lib/core/passages';
import type { OutlineItem, OutlineSection } from '$lib/server/projects';

/** A line of an outline: a section, or something that stands in one. */
export type Line =
  | { kind: 'section'; key: string; depth: number; section: OutlineSection; holds: boolean }
  | { kind: 'item'; key: string; depth: number; item: OutlineItem };

/** The lines of an outline as it is read: each section, what stands in it, then the sections under it. */
export function linesOf(sections: readonly OutlineSection[], items: readonly OutlineItem[]): Line[] {
  const own = new Map<string, OutlineItem[]>();
  for (const item of items) {
    const here = own.get(item.sectionId);
    if (here) here.push(item);
    else own.set(item.sectionId, [item]);
  }
  const parents = new Set(sections.map((section) => section.parentId));
  return inOrder(sections).flatMap((section): Line[] => {
    const { depth } = section;
    const here = own.get(section.id) ?? [];
    return [
      {
        kind: 'section',
        key: section.id,
        depth,
        section,
        holds: here.length > 0 || parents.has(section.id),
      },
      ...here.map((item): Line => ({ kind: 'item', key: keyOf(item), depth: depth + 1, item })),
    ];
  });
}

/** The lines that are seen: nothing of what stands in a section that is folded. */
export function seenOf(lines: readonly Line[], folded: (sectionId: string) => boolean): Line[] {
  let within = Infinity;
  return lines.filter((line) => {
    if (line.depth > within) return false;
    within = line.kind === 'section' && folded(line.key) ? line.depth : Infinity;
    return true;
  });
}

/** Where something put in at a line goes: behind an item, or first in a section. `before` is what stands there now. */
export function spotAfter(
  line: Line,
  items: readonly OutlineItem[],
): { sectionId: string; before: string | null } {
  const sectionId = line.kind === 'section' ? line.section.id : line.item.sectionId;
  const here = items.filter((item) => item.sectionId === sectionId);
  const at = line.kind === 'item' ? here.findIndex((item) => item.ref === line.item.ref) + 1 : 0;
  return { sectionId, before: here[at]?.ref ?? null };
}

export type ItemStep = 'up' | 'down' | 'before' | 'after';

/**
 * Where items go by one step: up or down in their section, or beyond its end into the section before or after as the outline
 * is read; or straight to that section, the last or the first there. Nothing where there is nowhere to go. The items are of
 * one section.
 */
export function spotStepped(
  moving: readonly ItemKey[],
  step: ItemStep,
  sections: readonly Heading[],
  items: readonly OutlineItem[],
): { sectionId: string; before: string | null } | undefined {
  const [first] = moving;
  if (!first || moving.some((item) => item.sectionId !== first.sectionId)) return undefined;
  const order = inOrder(sections);
  const at = order.findIndex((section) => section.id === first.sectionId);
  const refs = new Set(moving.map((item) => item.ref));
  const here = items.filter((item) => item.sectionId === first.sectionId);
  const places = here.flatMap((item, i) => (refs.has(item.ref) ? [i] : []));
  const [top, end] = [Math.min(...places), Math.max(...places)];
  const beforeThis = order[at - 1];
  const afterThis = order[at + 1];
  if (step === 'up' && top > 0) return { sectionId: first.sectionId, before: here[top - 1]!.ref };
  if (step === 'down' && end < here.length - 1)
    return { sectionId: first.sectionId, before: here[end + 2]?.ref ?? null };
  if (step === 'up' || step === 'before') return beforeThis && { sectionId: beforeThis.id, before: null };
  if (!afterThis) return undefined;
  const there = items.find((item) => item.sectionId === afterThis.id);
  return { sectionId: afterThis.id, before: there?.ref ?? null };
}

/** How many works of each year stand among items, each work once, by year. */
export function yearsOf(items: readonly OutlineItem[]): { year: number; n: number }[] {
  const works = new Map(
    items.flatMap(({ source }) => (source?.year === undefined ? [] : [[source.id, source.year]])),
  );
  const counts = new Map<number, number>();
  for (const year of works.values()) counts.set(year, (counts.get(year) ?? 0) + 1);
  return [...counts].map(([year, n]) => ({ year, n })).sort((a, b) => a.year - b.year);
}

/** What each section stands on, by its id. */
export const standingsOf = (
  sections: readonly Heading[],
  items: readonly OutlineItem[],
): Map<string, Standing> =>
  standings(
    sections,
    items.map((item) => ({
      ...item,
      sourceId: item.source?.id,
      inOwnWords: item.passage && inOwnWords(item.passage.kind),
    })),
  );
