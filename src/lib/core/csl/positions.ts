import { FIRST, IBID, IBID_WITH_LOCATOR, SUBSEQUENT, type Cite } from './scope';

/** A citation of a text: its works in order, and the number of its note; 0 for one in the text. */
export interface Cluster {
  id: string;
  cites: Cite[];
  note: number;
}

/** Where a cite stands. */
export interface Place {
  position: number;
  nearNote: boolean;
  /** The note its work was first cited in. */
  firstNote: number | undefined;
}

/** Of a work that was not mentioned before. */
export const FIRST_PLACE: Place = { position: FIRST, nearNote: false, firstNote: undefined };

/** Of one mentioned shortly before, where styles say least; of no note in particular. */
export const LATER_PLACE: Place = { position: SUBSEQUENT, nearNote: true, firstNote: undefined };

const labelled = (cite: Cite) => `${cite.label ?? 'page'} ${cite.locator ?? ''}`;

/** A cite right after one of the same work. CSL 1.0.2, "Choose", `position`. */
function after(cite: Cite, before: Cite): number {
  if (!before.locator) return cite.locator ? IBID_WITH_LOCATOR : IBID;
  if (!cite.locator) return SUBSEQUENT;
  return labelled(cite) === labelled(before) ? IBID : IBID_WITH_LOCATOR;
}

/**
 * Where each cite of each cluster stands, in the order of the text. A work cited alone before is meant by "ibid.", and so
 * is the one before in the same citation; a note is near when no more than `distance` notes lie between.
 */
export function placesOf(clusters: Cluster[], distance: number): Place[][] {
  const seen = new Map<string, { first: number; last: number }>();
  // Citations in the text and in notes are two rows of their own.
  const before: Record<'text' | 'note', Cluster[]> = { text: [], note: [] };
  return clusters.map((cluster) => {
    const places = cluster.cites.map((cite, i): Place => {
      const known = seen.get(cite.id);
      let position = known ? SUBSEQUENT : FIRST;
      if (known) {
        const previous = cluster.cites[i - 1];
        if (previous) {
          if (previous.id === cite.id) position = after(cite, previous);
        } else {
          const last = lastAlone(before[cluster.note ? 'note' : 'text'], cite.id, cluster);
          if (last) position = after(cite, last);
        }
      }
      const nearNote = Boolean(known && cluster.note && cluster.note - known.last <= distance);
      if (known) known.last = cluster.note;
      else seen.set(cite.id, { first: cluster.note, last: cluster.note });
      return { position, nearNote, firstNote: known?.first || undefined };
    });
    remember(before, cluster);
    return places;
  });
}

/** Keeps the citations that stand before the next: the last in the text, all of the last note. */
function remember(before: Record<'text' | 'note', Cluster[]>, cluster: Cluster): void {
  if (!cluster.note) before.text = [cluster];
  else if (before.note[0]?.note === cluster.note) before.note.push(cluster);
  else before.note = [cluster];
}

/** The last cite before, when what stands before is of this work alone, in the same note or the one before. */
function lastAlone(before: Cluster[], id: string, cluster: Cluster): Cite | undefined {
  const same = before[0]?.note === cluster.note && cluster.note > 0;
  // Within a note only the citation right before counts; of another note, all of it.
  const counted = same ? before.slice(-1) : before;
  const cites = counted.flatMap((c) => c.cites);
  if (cites.length === 0 || cites.some((c) => c.id !== id)) return undefined;
  if (cluster.note && cluster.note - before[0]!.note > 1) return undefined;
  return cites[cites.length - 1];
}
