import { authorNodes, citationNodes, NOTHING_PRINTED, sortedCites } from './citations';
import type { Item } from './item';
import { numbered, piece, textOf, type Node } from './pieces';
import { placesOf, type Cluster, type Place } from './positions';
import { openRegistry, setItems, type Registry } from './registry';
import type { Cite } from './scope';
import type { CompiledStyle } from './style';

/** A citation of a text as it prints; `author` is what stands in the sentence, where its first work is named in it. */
export interface ClusterNodes {
  id: string;
  author?: Node[];
  nodes: Node[];
}

/** A citation of a text whose first work may be named in the sentence: its authors there, the rest as a citation. */
export interface TextCluster extends Cluster {
  named?: boolean;
}

/** What was printed of a citation, and what that depended on. */
interface Made {
  /** What was given. */
  cites: Cite[];
  named: boolean;
  /** The works as they were told apart then. */
  stamps: number[];
  /** The numbers its works had, where they print. */
  numbers: number[];
  sorted: Cite[];
  places: Place[];
  printed: ClusterNodes;
}

const sameNumbers = (a: number[], b: number[]) => a.length === b.length && a.every((n, i) => n === b[i]);
const sameCites = (a: Cite[], b: Cite[]) =>
  a.length === b.length &&
  a.every((cite, i) => {
    const other = b[i]!;
    return (
      cite === other ||
      (cite.id === other.id &&
        cite.locator === other.locator &&
        cite.label === other.label &&
        cite.prefix === other.prefix &&
        cite.suffix === other.suffix &&
        cite['suppress-author'] === other['suppress-author'] &&
        cite['author-only'] === other['author-only'])
    );
  });
const samePlaces = (a: Place[], b: Place[]) =>
  a.length === b.length &&
  a.every(
    (p, i) =>
      p.position === b[i]!.position && p.nearNote === b[i]!.nearNote && p.firstNote === b[i]!.firstNote,
  );

/** A text with citations: its works as the list holds them, and each citation as it prints where it stands. */
export interface Document {
  registry: Registry;
  made: Map<string, Made>;
  /** In the order of the text. */
  clusters: ClusterNodes[];
}

export const openDocument = (style: CompiledStyle): Document => ({
  registry: openRegistry(style),
  made: new Map(),
  clusters: [],
});

/**
 * Makes a document hold these citations, in the order of the text, of these works. The works a list numbers as they are
 * cited come in that order; those that are given and not cited follow. Cites of works that are not given print nothing.
 * Returns the ids of the citations that print otherwise than before, new ones among them. CSL 1.0.2, "Choose", `position`,
 * and "Disambiguation".
 */
export function setDocument(document: Document, clusters: TextCluster[], works: Item[]): string[] {
  const { registry } = document;
  const given = new Map(works.map((item) => [item.id, item]));
  const cited = new Map<string, Item>();
  for (const { cites } of clusters)
    for (const { id } of cites) {
      const item = given.get(id);
      if (item) cited.set(id, item);
    }
  setItems(registry, [...cited.values(), ...works.filter((item) => !cited.has(item.id))]);
  const { printsNumber, keys } = registry.style.citation;
  const byNumber = printsNumber || keys.some((k) => k.isNumber);
  const stampOf = ({ id }: Cite) => registry.entries.get(id)!.stamp;
  const numberOf = ({ id }: Cite) => registry.entries.get(id)!.number;
  const before = document.made;
  const made = new Map<string, Made>();
  const sorted = clusters.map((cluster) => {
    const cites = cluster.cites.filter((c) => registry.entries.has(c.id));
    const named = cluster.named === true;
    const stamps = cites.map(stampOf);
    const numbers = byNumber ? cites.map(numberOf) : [];
    let known = before.get(cluster.id);
    if (known?.named !== named || !sameNumbers(known.stamps, stamps) || !sameCites(known.cites, cites))
      known = undefined;
    else if (!sameNumbers(known.numbers, numbers)) known = withNumber(known, numbers);
    // A work named in the sentence stays the first.
    const order = () =>
      cluster.named && cites[0] ? [cites[0], ...inRuns(registry, cites.slice(1))] : inRuns(registry, cites);
    return {
      cluster: { ...cluster, cites: known ? known.sorted : order() },
      given: { cites, named, stamps, numbers },
      known,
    };
  });
  const places = placesOf(
    sorted.map((s) => s.cluster),
    registry.style.setting.nearNoteDistance,
  );
  const changed: string[] = [];
  document.clusters = sorted.map(({ cluster, given, known }, i) => {
    const { id } = cluster;
    if (known && samePlaces(known.places, places[i]!)) {
      made.set(id, known);
      if (known !== before.get(id)) changed.push(id);
      return known.printed;
    }
    const printed = print(registry, cluster, places[i]!);
    made.set(id, { ...given, sorted: cluster.cites, places: places[i]!, printed });
    changed.push(id);
    return printed;
  });
  document.made = made;
  return changed;
}

/** A citation of one work, with another number of it; nothing of several, which may be in another order then. */
function withNumber(made: Made, numbers: number[]): Made | undefined {
  if (numbers.length !== 1) return undefined;
  const nodes = numbered({ number: made.numbers[0]!, nodes: made.printed.nodes }, numbers[0]!);
  return nodes && { ...made, numbers, printed: { ...made.printed, nodes } };
}

/** Cites in the order of the style; words before one, such as “see also”, hold it and those behind it in their place. Common practice. */
function inRuns(registry: Registry, cites: Cite[]): Cite[] {
  const runs: Cite[][] = [];
  for (const cite of cites)
    if (cite.prefix || runs.length === 0) runs.push([cite]);
    else runs[runs.length - 1]!.push(cite);
  return runs.flatMap((run) => sortedCites(registry, run));
}

function print(
  registry: Registry,
  { id, cites, named }: TextCluster,
  places: ReturnType<typeof placesOf>[number],
): ClusterNodes {
  const [first, ...others] = cites;
  const author = named && first ? authorNodes(registry, first.id, places[0]) : undefined;
  // Where the style names nobody, there is nothing to leave out.
  const said = author && first ? [{ ...first, 'suppress-author': true }, ...others] : cites;
  const nodes = first ? citationNodes(registry, said, places) : [];
  // A work of which the style prints no more than its author may be left with nothing, which is no mistake then.
  const nothing =
    said.length === 1 && said[0]!['suppress-author'] && textOf(piece(nodes)).includes(NOTHING_PRINTED);
  return { id, ...(author ? { author } : {}), nodes: nothing ? [] : nodes };
}
