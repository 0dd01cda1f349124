/** A heading of an outline: under which other it stands, or none. Those under one stand in the order they are listed in. */
export interface Heading {
  id: string;
  parentId: string | null;
}

/** A place in an outline: under which heading (or none), and before which other of those there (or last). */
export interface Spot {
  parentId: string | null;
  before: string | null;
}

/** The headings under one, or those under none, in their order. */
export const under = <T extends Heading>(headings: readonly T[], parentId: string | null): T[] =>
  headings.filter((heading) => heading.parentId === parentId);

/** The headings by what they stand under, for going down without looking through all of them each time. */
function byParent<T extends Heading>(headings: readonly T[]): Map<string | null, T[]> {
  const known = new Set(headings.map(({ id }) => id));
  const found = new Map<string | null, T[]>();
  for (const heading of headings) {
    // What stands under something that is not there stands under nothing, so that it is seen.
    const { parentId } = heading;
    const parent = parentId !== null && known.has(parentId) ? parentId : null;
    const there = found.get(parent);
    if (there) there.push(heading);
    else found.set(parent, [heading]);
  }
  return found;
}

/** All headings as an outline is read: each before those under it, with how deep it stands, from 0. */
export function inOrder<T extends Heading>(headings: readonly T[]): (T & { depth: number })[] {
  const children = byParent(headings);
  const read: (T & { depth: number })[] = [];
  const waiting = (children.get(null) ?? []).map((heading) => ({ ...heading, depth: 0 })).reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    read.push(next);
    const below = (children.get(next.id) ?? []).map((heading) => ({ ...heading, depth: next!.depth + 1 }));
    waiting.push(...below.reverse());
  }
  return read;
}

/** The ids of a heading and of all under it, however deep. */
export function within(headings: readonly Heading[], id: string): Set<string> {
  const found = new Set([id]);
  // In the order of reading, a heading comes after the one it stands under.
  for (const heading of inOrder(headings))
    if (heading.parentId !== null && found.has(heading.parentId)) found.add(heading.id);
  return found;
}

/** Where a heading stands; nothing when there is no such. */
export function spotOf(headings: readonly Heading[], id: string): Spot | undefined {
  const one = headings.find((heading) => heading.id === id);
  if (!one) return undefined;
  const beside = under(headings, one.parentId);
  return { parentId: one.parentId, before: beside[beside.indexOf(one) + 1]?.id ?? null };
}

/**
 * The headings with one of them put at a spot, and all under it with it. Throws a RangeError when there is no such heading
 * or spot, or when it would come to stand under itself.
 */
export function moved<T extends Heading>(
  headings: readonly T[],
  id: string,
  { parentId, before }: Spot,
): T[] {
  const one = headings.find((heading) => heading.id === id);
  if (!one) throw new RangeError('There is no such section.');
  if (parentId !== null && !headings.some((heading) => heading.id === parentId))
    throw new RangeError('There is no such section to put it under.');
  if (parentId !== null && within(headings, id).has(parentId))
    throw new RangeError('A section cannot stand under itself.');
  if (before === id) return [...headings];
  const rest = headings.filter((heading) => heading.id !== id);
  const at =
    before === null ? rest.length : rest.findIndex((h) => h.id === before && h.parentId === parentId);
  if (at === -1) throw new RangeError('There is no such place for the section.');
  return [...rest.slice(0, at), { ...one, parentId }, ...rest.slice(at)];
}

/** One step of a heading: among those beside it, under the one before it, or out to beside the one it stands under. */
export type Step = 'up' | 'down' | 'in' | 'out';

/** Where a step takes a heading; nothing where there is none to take. */
export function stepped(headings: readonly Heading[], id: string, step: Step): Spot | undefined {
  const one = headings.find((heading) => heading.id === id);
  if (!one) return undefined;
  const { parentId } = one;
  const beside = under(headings, parentId);
  const at = beside.indexOf(one);
  const last = (parent: string) => ({ parentId: parent, before: null });
  if (step === 'up') return at > 0 ? { parentId, before: beside[at - 1]!.id } : undefined;
  if (step === 'down')
    return at < beside.length - 1 ? { parentId, before: beside[at + 2]?.id ?? null } : undefined;
  if (step === 'in') return at > 0 ? last(beside[at - 1]!.id) : undefined;
  return parentId === null ? undefined : spotOf(headings, parentId);
}

/** A list with some of its items put before another, or last; they keep their order among themselves. */
export function putBefore<T>(items: readonly T[], some: readonly T[], before: T | null): T[] {
  const going = new Set(some);
  // What they are put before may be one of them: then before the next that stays.
  const from = before === null ? items.length : items.indexOf(before);
  const stays = items.slice(from === -1 ? items.length : from).find((item) => !going.has(item));
  const rest = items.filter((item) => !going.has(item));
  const at = stays === undefined ? rest.length : rest.indexOf(stays);
  return [...rest.slice(0, at), ...items.filter((item) => going.has(item)), ...rest.slice(at)];
}
