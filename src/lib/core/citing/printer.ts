import {
  citationNodes,
  compileStyle,
  leavesOf,
  listNodes,
  nodesNamed,
  openDocument,
  openRegistry,
  setDocument,
  setItems,
  sortedCites,
  type Cite,
  type ClusterNodes,
  type CompiledStyle,
  type EntryNodes,
  type Item,
  type Node,
  type Registry,
  type Tree,
} from '../csl';
import { DATE_VARIABLES, isOpenRange, type CslDate, type CslItem, type SourceRecord } from '../source';
import type { Annotation } from './arrange';
import { runsOfLeaves, runsToText, type Run } from './runs';
import { toldList, type ToldList } from './telling';

/** A printed reference. `label` is what stands before it in styles that number or name entries. */
export interface PrintedReference {
  id: string;
  runs: Run[];
  label?: string;
  /** The heading that stands before it, in a list that is grouped. */
  heading?: string;
  /** What stands under it, in a list that is annotated. */
  annotations?: Annotation[];
  /** It cannot be printed in the style, and why, in the processor's words; `runs` are empty. */
  failed?: string;
}

/** A printed list: entries in the style's order. */
export interface PrintedList {
  entries: PrintedReference[];
  hangingIndent: boolean;
  /** Whether the style has a reference list at all; some note styles do not. */
  hasList: boolean;
}

/** A work in a citation, with its place in the work. */
export interface CiteItem {
  id: string;
  locator?: string;
  label?: string;
  'suppress-author'?: boolean;
  'author-only'?: boolean;
  prefix?: string;
  suffix?: string;
}

/** Prints in one style and one language. Not safe for use from two places at once. */
export interface Printer {
  list(items: CslItem[]): PrintedList;
  each(items: CslItem[]): PrintedReference[];
  /** The works of a list that would be cited in the same words, group by group, and what tells each apart. */
  told(items: CslItem[]): ToldList;
  /** An in-text citation, in the order the style puts the works; with `named`, the first work's author stands before it in the sentence. */
  citation(items: CslItem[], cited: CiteItem[], named?: boolean): Run[];
  /** Many in-text citations of some works, each by itself as the first of a text; told apart and numbered among all of them. */
  citations(items: CslItem[], clusters: CiteItem[][]): Run[][];
  /** A text with citations, empty at first. */
  text(): PrintedText;
}

/** A citation where it stands in a text: its works, and the number of its note, 0 for one in the text. */
export interface TextCitation {
  id: string;
  cites: CiteItem[];
  note: number;
  /** The first work’s author stands in the sentence, and the rest is cited behind it. */
  named?: boolean;
}

/** A citation as it prints in a text. In a note, `author` stands in the text and `runs` in the note. */
export interface PrintedCitation {
  id: string;
  author?: Run[];
  runs: Run[];
}

/** A text whose citations stand in a row: first and later mentions, letters and numbers are those of the whole. */
export interface PrintedText {
  /**
   * Makes the text hold these citations in order, of these works; works that are not cited are in the list all the same.
   * What has to do with nothing that changed stays as it was printed, and is the same object. Cites of other works print
   * nothing. `changed` are the ids of citations that print otherwise than before.
   */
  set(
    works: CslItem[],
    citations: TextCitation[],
  ): { citations: PrintedCitation[]; list: PrintedList; changed: string[] };
}

export type CitationFormat = 'author-date' | 'author' | 'numeric' | 'label' | 'note';

/** What a style says of itself; `fields` are the fields of study it belongs to (CSL 1.0.2, appendix I). */
export interface StyleFacts {
  format: CitationFormat;
  hasList: boolean;
  fields: string[];
  locale?: string;
}

/** What a style says of itself. */
export function styleFacts(style: Tree): StyleFacts {
  const format = nodesNamed(style, 'category')
    .map((c) => c.attrs['citation-format'])
    .find(Boolean) as CitationFormat | undefined;
  const locale = style.attrs['default-locale'];
  return {
    format: format ?? (style.attrs.class === 'note' ? 'note' : 'author-date'),
    hasList: nodesNamed(style, 'bibliography').length > 0,
    fields: nodesNamed(style, 'category').flatMap((c) => c.attrs.field ?? []),
    ...(locale ? { locale } : {}),
  };
}

function withoutEdtf({ edtf: _said, ...parts }: CslDate): CslDate {
  return parts;
}

/** Dates as the processor takes them: parts alone, both ends of a range told equally far, a last end of 0 for one that goes on. */
export function withPlainDates(item: CslItem): Item {
  // A work lacks most variables there are: looking for one ends at the work, which takes after nothing.
  const plain: Record<string, unknown> = Object.assign(Object.create(null) as object, item);
  for (let i = 0; i < DATE_VARIABLES.length; i++) {
    const variable = DATE_VARIABLES[i]!;
    const date = item[variable];
    if (!date) continue;
    const parts = date.edtf === undefined ? date : withoutEdtf(date);
    const from = parts['date-parts']?.[0];
    const to = parts['date-parts']?.[1];
    if (isOpenRange(date))
      plain[variable] = { ...parts, 'date-parts': [...(parts['date-parts'] ?? []), [0]] };
    else if (from && to && from.length !== to.length) {
      const length = Math.min(from.length, to.length);
      plain[variable] = { ...parts, 'date-parts': [from.slice(0, length), to.slice(0, length)] };
    } else plain[variable] = parts;
  }
  return plain as Item;
}

/** What a variable that was printed is called in the record; nothing for one the record has no field for. */
export function fieldFor(item: CslItem): (variable: string) => string | undefined {
  const record = item as unknown as SourceRecord;
  return (variable) => {
    if (record[variable as 'title'] !== undefined) return variable;
    if (variable === 'editortranslator') return 'editor';
    if (variable === 'page-first') return 'page';
    return undefined;
  };
}

/**
 * A printer for a style and the locale of a language. Throws an Error in words when the style cannot be used.
 *
 * A list printed again, with some records changed, keeps what was printed of the others: an entry is set again only when
 * its record, its number or what tells it apart is another. Styles that put a dash for a repeated name are set whole.
 */
export function createPrinter(style: Tree, locale: Tree, lang: string): Printer {
  const compiled = compileStyle(style, lang, [locale], { translations: true });
  const hasList = compiled.bibliography !== undefined;
  const hangingIndent = compiled.bibliography?.attrs['hanging-indent'] === 'true';
  const toRuns = (nodes: Node[], given: CslItem): Run[] =>
    runsOfLeaves(leavesOf(nodes, compiled.locale), fieldFor(given));
  const lists = holding(openRegistry(compiled), toRuns);

  function list(all: CslItem[]): PrintedList {
    if (!hasList) return { entries: [], hangingIndent: false, hasList };
    setItems(lists.registry, lists.itemsOf(all));
    return { entries: lists.entries(), hangingIndent, hasList };
  }

  /** Why a work cannot be put in order, if it cannot: beside its twin every key it is sorted by is made. */
  function unsorted(given: CslItem): string | undefined {
    const item = withPlainDates(given);
    try {
      setItems(openRegistry(compiled), [item, { ...item, id: `${item.id}\u0001` }]);
    } catch (error) {
      return wordsOf(error);
    }
    return undefined;
  }

  /** A list that cannot be printed with all there is in it: those that cannot be printed alone are left out, and named. */
  function listOfTheRest(all: CslItem[], cause: unknown): PrintedList {
    const failed = each(all).flatMap((reference, i): PrintedReference[] => {
      if (reference.failed !== undefined) return [reference];
      const why = unsorted(all[i]!);
      return why === undefined ? [] : [{ id: reference.id, runs: [], failed: why }];
    });
    if (failed.length === 0) throw cause;
    const culprits = new Set(failed.map((r) => r.id));
    const rest = list(all.filter((item) => !culprits.has(item.id)));
    return { ...rest, entries: [...rest.entries, ...failed] };
  }

  const each = (all: CslItem[]): PrintedReference[] =>
    all.map((item): PrintedReference => {
      try {
        return one(compiled, item, hasList, toRuns);
      } catch (error) {
        return { id: item.id, runs: [], failed: wordsOf(error) };
      }
    });

  const citing = (all: CslItem[]): { registry: Registry; byId: Map<string, CslItem> } => {
    const registry = openRegistry(compiled);
    setItems(registry, all.map(withPlainDates));
    return { registry, byId: new Map(all.map((item) => [item.id, item])) };
  };
  const cluster = (registry: Registry, byId: Map<string, CslItem>, cited: Cite[]): Run[] => {
    const given = byId.get(cited[0]?.id ?? '');
    return given
      ? toRuns(
          citationNodes(
            registry,
            sortedCites(
              registry,
              cited.filter((c) => byId.has(c.id)),
            ),
          ),
          given,
        )
      : [];
  };

  function text(): PrintedText {
    const document = openDocument(compiled);
    const works = holding(document.registry, toRuns);
    const known = new WeakMap<ClusterNodes, PrintedCitation>();
    const citationOf = (cluster: ClusterNodes, cited: TextCitation): PrintedCitation => {
      const kept = known.get(cluster);
      if (kept) return kept;
      const first = cited.cites.find((c) => document.registry.entries.has(c.id));
      const given = first && works.givenOf(first.id);
      const printed: PrintedCitation = {
        id: cluster.id,
        runs: given ? toRuns(cluster.nodes, given) : [],
        ...(given && cluster.author ? { author: toRuns(cluster.author, given) } : {}),
      };
      known.set(cluster, printed);
      return printed;
    };
    return {
      set(all, citations) {
        const changed = setDocument(document, citations, works.itemsOf(all));
        return {
          citations: document.clusters.map((cluster, i) => citationOf(cluster, citations[i]!)),
          list: { entries: works.entries(), hangingIndent, hasList },
          changed,
        };
      },
    };
  }

  return {
    text,
    list(all) {
      try {
        return list(all);
      } catch (error) {
        return listOfTheRest(all, error);
      }
    },
    each,
    told(all) {
      try {
        setItems(lists.registry, lists.itemsOf(all));
      } catch (error) {
        listOfTheRest(all, error);
      }
      return toldList(lists.registry, (nodes, id) => toRuns(nodes, lists.givenOf(id)));
    },
    citation(all, cited, named = false) {
      const { registry, byId } = citing(all);
      const [first, ...others] = cited;
      if (!named || !first) return cluster(registry, byId, cited);
      return [
        ...cluster(registry, byId, [{ id: first.id, 'author-only': true }]),
        { text: ' ' },
        ...cluster(registry, byId, [{ ...first, 'suppress-author': true }, ...others]),
      ];
    },
    citations(all, clusters) {
      const { registry, byId } = citing(all);
      const done = new Map<string, Run[]>();
      return clusters.map((cited) => {
        const key = JSON.stringify(cited);
        const runs = done.get(key) ?? cluster(registry, byId, cited);
        done.set(key, runs);
        return runs;
      });
    },
  };
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Records as a registry holds them, and their references as they were printed of it. */
function holding(registry: Registry, toRuns: (nodes: Node[], given: CslItem) => Run[]) {
  const known = new Map<string, { given: CslItem; item: Item }>();
  const printed = new WeakMap<readonly Node[], PrintedReference>();
  // What stands beside a number stays when the number is another.
  const beside = new WeakMap<Node & object, Run[]>();
  /** The records that were given last with their items, and what the list was printed of with its references. */
  let given: { all: CslItem[]; items: Item[] } = { all: [], items: [] };
  let shown: { nodes: Node[][]; references: PrintedReference[] } = { nodes: [], references: [] };
  const givenOf = (id: string): CslItem => known.get(id)!.given;
  /** The processor’s item of a record: the same one for the same content, so that what was made of it stays. */
  const itemOf = (given: CslItem): Item => {
    const before = known.get(given.id);
    if (before?.given === given) return before.item;
    if (before && JSON.stringify(before.given) === JSON.stringify(given)) {
      before.given = given;
      return before.item;
    }
    const item = withPlainDates(given);
    known.set(given.id, { given, item });
    return item;
  };
  /** The items of all records: for those that stand where they stood, looked up by their place alone. */
  const itemsOf = (all: CslItem[]): Item[] => {
    const { all: before, items: made } = given;
    const items = all.map((record, i) => (record === before[i] ? made[i]! : itemOf(record)));
    given = { all: [...all], items };
    return items;
  };
  const referenceOf = ({ nodes, entry }: EntryNodes): PrintedReference => {
    const kept = printed.get(nodes);
    if (kept) return kept;
    const given = givenOf(entry.item.id);
    const { margin, text } = besideMargin(nodes);
    const label = margin ? runsToText(toRuns([margin], given)) : undefined;
    const body = margin && text.length === 1 && typeof text[0] === 'object' ? text[0] : undefined;
    const runs = (body && beside.get(body)) ?? toRuns(text, given);
    if (body) beside.set(body, runs);
    const reference: PrintedReference = { id: given.id, runs, ...(label ? { label } : {}) };
    printed.set(nodes, reference);
    return reference;
  };
  /** The references of the list in order; records that are no longer in it are let go of. */
  const entries = (): PrintedReference[] => {
    if (known.size > registry.entries.size)
      for (const id of known.keys()) if (!registry.entries.has(id)) known.delete(id);
    const list = listNodes(registry);
    const { nodes: before, references: made } = shown;
    // Most stand as far from the start, or from the one that came or went, as they did.
    let off = 0;
    const references = list.map((entry, i): PrintedReference => {
      if (before[i + off] !== entry.nodes) {
        const step = [1, -1].find((by) => before[i + off + by] === entry.nodes);
        if (step === undefined) return referenceOf(entry);
        off += step;
      }
      return made[i + off]!;
    });
    shown = { nodes: list.map(({ nodes }) => nodes), references };
    return references;
  };
  return { registry, itemsOf, givenOf, entries };
}

/** What stands in the margin of an entry, such as its number, and what stands beside it. */
function besideMargin(nodes: Node[]): { margin?: Node; text: Node[] } {
  const [margin, ...text] = nodes;
  return typeof margin === 'object' && margin.display === 'left-margin' ? { margin, text } : { text: nodes };
}

/** A reference by itself, without a number; in a style without a list, a note that cites it for the first time. */
function one(
  compiled: CompiledStyle,
  given: CslItem,
  hasList: boolean,
  toRuns: (nodes: Node[], given: CslItem) => Run[],
): PrintedReference {
  const registry = openRegistry(compiled);
  setItems(registry, [withPlainDates(given)]);
  if (!hasList) return { id: given.id, runs: toRuns(citationNodes(registry, [{ id: given.id }]), given) };
  const [entry] = listNodes(registry);
  return { id: given.id, runs: toRuns(besideMargin(entry!.nodes).text, given) };
}
