import type { CitedWork } from '$lib/core/drafting';
import { escapeHtml } from '$lib/core/text';
import type { ShownCitation } from '../../../workers/printing';

/** What stands in the text and is printed elsewhere: how it reads now, and who draws it. */
export function showingOf(
  /** Where pictures of one’s own are, as the beginning of their addresses. */
  pictures = '',
) {
  const watching = new Map<string, Set<() => void>>();
  const printed = new Map<string, ShownCitation>();
  let notes = new Map<string, number>();
  let names = new Map<string, string>();
  let labels: ReadonlyMap<string, string> = new Map();
  let inNotes = false;
  const draw = (ids: Iterable<string>) => {
    for (const id of ids) for (const again of watching.get(id) ?? []) again();
  };
  /** Ids of which something is another than before. */
  const differing = <T>(before: Map<string, T>, now: Map<string, T>) =>
    [...new Set([...before.keys(), ...now.keys()])].filter((id) => before.get(id) !== now.get(id));
  return {
    pictures,
    /** Draws again whenever what one of the ids stands for reads otherwise; gives what stops that. */
    watch(ids: string[], again: () => void): () => void {
      for (const id of ids) {
        const there = watching.get(id) ?? new Set();
        watching.set(id, there.add(again));
      }
      return () => ids.forEach((id) => watching.get(id)?.delete(again));
    },
    /** The names of works by their ids, of those that are here. */
    setLabels(now: ReadonlyMap<string, string>): void {
      labels = now;
    },
    setInNotes(yes: boolean): void {
      inNotes = yes;
      draw(watching.keys());
    },
    setPrinted(changed: Record<string, ShownCitation>): void {
      for (const [id, citation] of Object.entries(changed)) printed.set(id, citation);
      draw(Object.keys(changed));
    },
    setNotes(now: Map<string, number>): void {
      const other = differing(notes, now);
      notes = now;
      draw(other);
    },
    setNames(now: Map<string, string>): void {
      const other = differing(names, now);
      names = now;
      draw(other.flatMap((id) => [`name ${id}`, id]));
    },
    /** A citation as it reads in the text; in a note style its number, with what stands in the note as its title. */
    citation(id: string, works: CitedWork[]): { html: string; title: string; unknown: boolean } {
      const unknown = labels.size > 0 && works.some((w) => !labels.has(w.id));
      const as = printed.get(id);
      const title = works.map((w) => labels.get(w.id) ?? 'a source that is gone').join('; ');
      if (!as) return { html: `(${escapeHtml(title || '…')})`, title, unknown };
      const note = notes.get(id);
      if (inNotes && note !== undefined)
        return { html: `${as.author}<sup>${note}</sup>`, title: as.text, unknown };
      return { html: [as.author, as.html].filter(Boolean).join(' '), title, unknown };
    },
    citationText(id: string): string {
      const as = printed.get(id);
      return as ? as.text : '';
    },
    printed: (id: string): ShownCitation | undefined => printed.get(id),
    note: (id: string): number | undefined => notes.get(id),
    name: (id: string): string | undefined => names.get(id),
  };
}

export type Showing = ReturnType<typeof showingOf>;
