import { finder, type Segment, type Stretch } from '$lib/core/passages';
import { rangeOf, readText } from './marking';

/** What the browser calls the marks of what was looked for, and of the one that is shown. */
const [ALL, SHOWN] = ['sought', 'sought-shown'];

type Marking = { highlights: Map<string, object> };

/**
 * Finds words in a document and marks all their places in it, without touching it, so that passages drawn there stay as they
 * are. `show` is given the place that is to come into view.
 */
export function hits(doc: () => Document | undefined, show: (range: Range) => void) {
  let words = $state('');
  let found = $state.raw<Stretch[]>([]);
  let at = $state(-1);
  let find: ((words: string) => Stretch[]) | undefined;
  let read: { of: Document; segments: Segment[] } | undefined;

  function ready(of: Document): Segment[] {
    // Marks drawn meanwhile split the text nodes; the text itself stays, and with it what is found.
    const { text, segments } = readText(of);
    if (read?.of !== of) find = undefined;
    find ??= finder(text);
    read = { of, segments };
    return segments;
  }

  /** The browser's own marks of ranges, where it has them. */
  function mark(): void {
    const of = doc();
    const view = of?.defaultView as (Window & typeof globalThis & { CSS: Marking }) | null | undefined;
    if (!of || !view?.CSS?.highlights) return;
    if (found.length === 0) {
      for (const name of [ALL, SHOWN]) view.CSS.highlights.delete(name);
      return;
    }
    const segments = read!.segments;
    const ranges = found.flatMap((stretch) => rangeOf(of, segments, stretch) ?? []);
    const here = found[at];
    const shown = here && rangeOf(of, segments, here);
    view.CSS.highlights.set(ALL, new view.Highlight(...ranges));
    if (shown) view.CSS.highlights.set(SHOWN, new view.Highlight(shown));
  }

  function go(to: number): void {
    const of = doc();
    if (!of || found.length === 0) return;
    at = (to + found.length) % found.length;
    const range = rangeOf(of, read!.segments, found[at]!);
    if (range) show(range);
    mark();
  }

  return {
    get words() {
      return words;
    },
    get count() {
      return found.length;
    },
    /** Which hit is shown, counted from 1; 0 where there is none. */
    get nth() {
      return at + 1;
    },
    /** Looks for words and shows the first place of them. */
    look(wanted: string): void {
      words = wanted;
      const of = doc();
      if (!of) return;
      ready(of);
      found = find!(wanted);
      at = -1;
      if (found.length) go(0);
      else mark();
    },
    next: () => go(at + 1),
    previous: () => go(at - 1),
    /** Marks again after the document was drawn anew. */
    again(): void {
      const of = doc();
      if (!of || found.length === 0) return;
      ready(of);
      mark();
    },
    clear(): void {
      [words, found, at] = ['', [], -1];
      mark();
    },
  };
}
export type Hits = ReturnType<typeof hits>;
