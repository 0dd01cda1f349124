import { KIND_LABELS } from '$lib/core/passages';
import type { PassageItem } from '$lib/server/passages';

/** What passages can be put in groups by. */
export const GROUPINGS = ['source', 'section', 'tag', 'tint', 'kind'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** Passages under one head. */
export interface Group {
  head: string;
  /** Where the head leads, if anywhere. */
  href?: string;
  items: PassageItem[];
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The heads a passage stands under; one of several tags or sections stands under each of them. */
function headsOf(passage: PassageItem, by: Grouping): { head: string; href?: string }[] {
  switch (by) {
    case 'source':
      return [{ head: passage.sourceLabel, href: `/sources/${passage.sourceId}` }];
    case 'section':
      return passage.sections.length
        ? passage.sections.map(({ name }) => ({ head: name }))
        : [{ head: 'In no section' }];
    case 'tag':
      return passage.tags.length ? passage.tags.map((head) => ({ head })) : [{ head: 'Without a tag' }];
    case 'tint':
      return [{ head: capital(passage.tint) }];
    case 'kind':
      return [{ head: KIND_LABELS[passage.kind] }];
  }
}

/** Passages in groups, in the order the first of each comes; those without what they are put in groups by come last. */
export function groupsOf(passages: readonly PassageItem[], by: Grouping | undefined): Group[] {
  if (!by) return [{ head: '', items: [...passages] }];
  const groups = new Map<string, Group>();
  for (const passage of passages)
    for (const { head, href } of headsOf(passage, by)) {
      const key = `${head} ${href ?? ''}`;
      const group = groups.get(key) ?? { head, ...(href ? { href } : {}), items: [] };
      group.items.push(passage);
      groups.set(key, group);
    }
  const last = (group: Group) => (/^(?:In no section|Without a tag)$/.test(group.head) ? 1 : 0);
  return [...groups.values()].sort((a, b) => last(a) - last(b));
}
