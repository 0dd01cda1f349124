import {
  citationNodes,
  compileStyle,
  leavesOf,
  listNodes,
  openRegistry,
  optionsInForce,
  remarksOn,
  setItems,
  tagOf,
  traceOf,
  type Node,
  type OptionInForce,
  type Tree,
} from '../csl';
import type { CslItem } from '../source';
import { fieldFor, withPlainDates } from './printer';
import { runsOfLeaves, type Run } from './runs';

/** An element of a style as it is shown: its tag, its line where the style was read from a file, and what it takes over. */
export interface ShownElement {
  tag: string;
  line?: number;
  /** Of names: the options in force, and where each comes from. */
  options?: OptionInForce[];
}

/** What a work prints as, by itself: in the list, and cited for the first time. `trace` of a run are places in `elements`. */
export interface TracedReference {
  id: string;
  list: Run[];
  citation: Run[];
  /** It cannot be printed in the style, and why. */
  failed?: string;
}

/** What some works print as, and which elements of the style each stretch came through. */
export interface TracedPrint {
  elements: ShownElement[];
  references: TracedReference[];
  remarks: { tag: string; line?: number; text: string }[];
}

/**
 * Prints works one by itself after the other, in the list and as a citation, and says of each stretch which elements of the
 * style it came through, the outermost first. `lines` are those of the elements in the file, in document order. Throws an
 * Error in words when the style cannot be used.
 */
export function printTraced(
  style: Tree,
  locale: Tree,
  lang: string,
  items: CslItem[],
  lines: readonly number[] = [],
): TracedPrint {
  const compiled = compileStyle(style, lang, [locale], { traced: true, translations: true });
  const hasList = compiled.bibliography !== undefined;
  const lineOf = linesByElement(style, lines);
  const elements: ShownElement[] = [];
  const places = { citation: new Map<Tree, number>(), bibliography: new Map<Tree, number>() };
  const shown = (tree: Tree): ShownElement => {
    const line = lineOf.get(tree);
    return { tag: tagOf(tree), ...(line ? { line } : {}) };
  };
  const placeOf = (tree: Tree, area: 'citation' | 'bibliography'): number => {
    const known = places[area].get(tree);
    if (known !== undefined) return known;
    places[area].set(tree, elements.length);
    const options = tree.name === 'names' ? optionsInForce(tree, area, style) : [];
    return elements.push({ ...shown(tree), ...(options.length ? { options } : {}) }) - 1;
  };
  const runs = (nodes: Node[], item: CslItem, area: 'citation' | 'bibliography'): Run[] =>
    runsOfLeaves(leavesOf(nodes, compiled.locale), fieldFor(item), (frame) =>
      traceOf(frame)
        .map((tree) => placeOf(tree, area))
        .join(' '),
    );
  const references = items.map((item): TracedReference => {
    try {
      const registry = openRegistry(compiled);
      setItems(registry, [withPlainDates(item)]);
      const [entry] = hasList ? listNodes(registry) : [];
      return {
        id: item.id,
        list: entry ? runs(entry.nodes, item, 'bibliography') : [],
        citation: runs(citationNodes(registry, [{ id: item.id }]), item, 'citation'),
      };
    } catch (error) {
      return {
        id: item.id,
        list: [],
        citation: [],
        failed: error instanceof Error ? error.message : String(error),
      };
    }
  });
  const remarks = remarksOn(style, locale).map(({ at, text }) => ({ ...shown(at), text }));
  return { elements, references, remarks };
}

/** The line each element stands in, of lines in document order; none where there are not as many as elements. */
function linesByElement(style: Tree, lines: readonly number[]): Map<Tree, number> {
  const all: Tree[] = [];
  const go = (tree: Tree): void => {
    all.push(tree);
    for (const kid of tree.children) if (typeof kid !== 'string') go(kid);
  };
  go(style);
  return new Map(all.length === lines.length ? all.map((tree, i) => [tree, lines[i]!]) : []);
}

/** What is passed over between elements, by how it begins and ends. XML 1.0, 2.5 to 2.8. */
const PASSED = [
  ['<!--', '-->'],
  ['<![CDATA[', ']]>'],
  ['<?', '?>'],
  ['<!', '>'],
  ['</', '>'],
] as const;

/** The line each element of a well-formed XML text begins in, in document order. */
export function elementLines(xml: string): number[] {
  const lines: number[] = [];
  let line = 1;
  let counted = 0;
  for (let at = xml.indexOf('<'); at >= 0;) {
    for (; counted < at; counted++) if (xml[counted] === '\n') line++;
    const passed = PASSED.find(([begin]) => xml.startsWith(begin, at));
    if (!passed) lines.push(line);
    const end = passed ? xml.indexOf(passed[1], at) : at;
    if (end < 0) break;
    at = xml.indexOf('<', end + 1);
  }
  return lines;
}
