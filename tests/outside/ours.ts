/** Our own processor, printing what `citeproc.ts` has printed by the other. */
import { runsOfLeaves } from '../../src/lib/core/citing';
import {
  compileStyle,
  leavesOf,
  listNodes,
  openDocument,
  openRegistry,
  setDocument,
  setItems,
  type Cite,
  type Item,
  type Node,
  type Tree,
} from '../../src/lib/core/csl';
import { comparableRuns, type Printed } from './citeproc';
import type { Work } from './works';

/** The list and the citations of works in a style, by key, as `theirs` gives them. */
export function ours(style: Tree, locale: Tree, lang: string, works: Work[], clusters: Cite[][]): Printed {
  const compiled = compileStyle(style, lang, [locale]);
  const printed: Printed = new Map();
  const text = (nodes: Node[]) =>
    comparableRuns(runsOfLeaves(leavesOf(nodes, compiled.locale), () => undefined));
  const registry = openRegistry(compiled);
  setItems(registry, works as unknown as Item[]);
  for (const { entry, nodes } of listNodes(registry)) printed.set(`list ${entry.item.id}`, text(nodes));
  // The citations are a text of their own: only what it cites is told apart in it.
  const cited = [...new Set(clusters.flat().map((c) => c.id))];
  const byId = new Map(works.map((w) => [w.id, w]));
  const document = openDocument(compiled);
  setDocument(
    document,
    clusters.map((cites, i) => ({ id: `c${i}`, cites, note: i + 1 })),
    cited.map((id) => byId.get(id) as unknown as Item),
  );
  for (const { id, nodes } of document.clusters) printed.set(id, text(nodes));
  return printed;
}
