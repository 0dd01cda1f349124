import type { Engine } from 'citeproc';
import {
  creatorsOf,
  DATE_VARIABLES,
  isNameVariable,
  isOpenRange,
  type CslItem,
  type SourceRecord,
} from '../source';
import type { Annotation } from './arrange';
import { openEngine } from './processor';
import { runsOf, runsToText, type Run } from './runs';
import { nodesNamed, type Tree } from './tree';

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
  /** An in-text citation, in the order the style puts the works; with `named`, the first work's author stands before it in the sentence. */
  citation(items: CslItem[], cited: CiteItem[], named?: boolean): Run[];
  /** Many in-text citations of some works, each by itself as the first of a text; told apart and numbered among all of them. */
  citations(items: CslItem[], clusters: CiteItem[][]): Run[][];
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

/** What the processor prints when a style has nothing to say of a record. */
const NOTHING = /^\s*\[CSL STYLE ERROR: reference with no printed form\.\]\s*$/;

/** Dates as the processor takes them: parts alone, with a last end of 0 for a range that goes on. */
function withPlainDates(item: CslItem): CslItem {
  const plain: Record<string, unknown> = { ...item };
  for (const variable of DATE_VARIABLES) {
    const date = item[variable];
    if (!date?.edtf) continue;
    const { edtf: _said, ...parts } = date;
    plain[variable] = isOpenRange(date)
      ? { ...parts, 'date-parts': [...(parts['date-parts'] ?? []), [0]] }
      : parts;
  }
  return plain as CslItem;
}

/** A processor with the items it knows. It remembers an item by its id, so a changed item must come under a new one. */
interface Processor {
  engine: Engine;
  /** Gives the processor's id of an item, a new one when its content is new. */
  know(item: CslItem): string;
  itemOf(id: string): CslItem | undefined;
  /** Forgets all items but these, which are processor's ids. */
  forgetAllBut(ids: Set<string>): void;
}

const MARK = '\u0001';

function processorFor(style: Tree, locale: Tree, lang: string, marked = true): Processor {
  const items = new Map<string, CslItem>();
  const latest = new Map<string, { content: string; id: string }>();
  let serial = 0;
  const engine = openEngine(style, { itemOf: (id) => items.get(id), localeOf: () => locale }, lang, marked);
  // A line "volume: 3" of a note is a remark to the processor too; what prints stands in the record's own fields.
  engine.opt.development_extensions.field_hack = false;
  return {
    engine,
    know(item) {
      const content = JSON.stringify(item);
      const known = latest.get(item.id);
      if (known?.content === content) return known.id;
      const id = `${item.id}${MARK}${++serial}`;
      latest.set(item.id, { content, id });
      items.set(id, withPlainDates(item));
      return id;
    },
    itemOf: (id) => items.get(id),
    forgetAllBut(ids) {
      for (const id of items.keys()) if (!ids.has(id)) items.delete(id);
      for (const [own, { id }] of latest) if (!ids.has(id)) latest.delete(own);
    },
  };
}

/** What an entry of a list depends on beside its own record: how it is told apart, and its number where that prints. */
type Circumstances = string;

/**
 * A printer for a style and the locale of a language. Throws an Error in the processor's words when the style
 * cannot be used.
 *
 * A list printed again, with some records changed, is updated: the processor takes out and puts in what changed, and
 * only entries whose record or circumstances changed are formatted again. Styles that put a dash for a repeated name
 * depend on the entry before, so those are formatted whole.
 */
export function createPrinter(style: Tree, locale: Tree, lang: string): Printer {
  let lists = processorFor(style, locale, lang);
  // Single references are printed apart, so that they do not take the list out of the processor.
  let apart: Processor | undefined;
  const singles = () => (apart ??= processorFor(style, locale, lang));
  let inText: Processor | undefined;
  const citations = () => (inText ??= processorFor(style, locale, lang, false));
  const { hasList } = styleFacts(style);
  const [bibliography] = nodesNamed(style, 'bibliography');
  const dashes = bibliography?.attrs['subsequent-author-substitute'] !== undefined;
  const numbered = JSON.stringify(style).includes('citation-number');
  const printed = new Map<string, { circumstances: Circumstances; reference: PrintedReference }>();

  const fieldOf = (item: CslItem | undefined) => {
    const record = item as unknown as SourceRecord | undefined;
    return (variables: string): string | undefined => {
      const names = variables.split(' ').filter(Boolean);
      if (!record || names.length === 0) return undefined;
      // For a block of names the processor gives the variables it tried, in no telling order.
      if (names.some(isNameVariable)) {
        const roles = creatorsOf(record).map((c) => c.role);
        return roles.length === 0 ? 'author' : (names.find((n) => roles.includes(n as never)) ?? roles[0]);
      }
      return (
        names.find((n) => record[n as 'title'] !== undefined) ??
        (names[0] === 'issued' ? 'issued' : undefined)
      );
    };
  };
  const referenceOf = (item: CslItem | undefined, html: string): PrintedReference => {
    const fields = fieldOf(item);
    const body = html.replace(/^\s*<div class="csl-entry">|<\/div>\s*$/g, '');
    const margin =
      /^\s*<div class="csl-left-margin">([\s\S]*?)<\/div>\s*<div class="csl-right-inline">([\s\S]*)<\/div>\s*$/.exec(
        body,
      );
    const text = (margin ? margin[2]! : body).replace(/<\/?div[^>]*>/g, ' ');
    const runs = NOTHING.test(text) ? [] : runsOf(text, fields);
    const label = margin ? runsToText(runsOf(margin[1]!, fields)) : undefined;
    return { id: item?.id ?? '', runs, ...(label ? { label } : {}) };
  };

  function list(all: CslItem[]): PrintedList {
    if (!hasList) return { entries: [], hangingIndent: false, hasList };
    const { engine } = lists;
    const ids = all.map(lists.know);
    engine.updateItems(ids);
    const known = new Set(ids);
    lists.forgetAllBut(known);
    for (const id of printed.keys()) if (!known.has(id)) printed.delete(id);
    const order = engine.registry.reflist.map((token) => String(token.id));
    const circumstances = new Map<string, Circumstances>(
      engine.registry.reflist.map((token) => [
        String(token.id),
        JSON.stringify(token.disambig) + (numbered ? String(token.seq) : ''),
      ]),
    );
    const due = order.filter((id) => dashes || printed.get(id)?.circumstances !== circumstances.get(id));
    // A filter is asked of every entry for every id in it; for many it is quicker to print the whole.
    const some = due.length > 0 && due.length <= Math.min(40, order.length / 4);
    if (due.length > 0) {
      const [meta, entries] = some
        ? engine.makeBibliography({ include: due.map((id) => ({ field: 'id', value: id })) })
        : engine.makeBibliography();
      entries.forEach((html, i) => {
        const id = String(meta.entry_ids[i]![0]);
        printed.set(id, {
          circumstances: circumstances.get(id) ?? '',
          reference: referenceOf(lists.itemOf(id), html),
        });
      });
    }
    return {
      entries: order.flatMap((id) => printed.get(id)?.reference ?? []),
      hangingIndent: Boolean(bibliography?.attrs['hanging-indent'] === 'true'),
      hasList,
    };
  }

  /** A list that cannot be printed with all there is in it: those that cannot be printed alone are left out, and named. */
  function listOfTheRest(all: CslItem[], cause: unknown): PrintedList {
    const startAnew = () => {
      lists = processorFor(style, locale, lang);
      printed.clear();
    };
    startAnew();
    const failed = each(all).filter((r) => r.failed !== undefined);
    if (failed.length === 0) throw cause;
    const culprits = new Set(failed.map((r) => r.id));
    const rest = list(all.filter((item) => !culprits.has(item.id)));
    return { ...rest, entries: [...rest.entries, ...failed] };
  }

  function each(all: CslItem[]): PrintedReference[] {
    return all.map((item): PrintedReference => {
      try {
        return one(item);
      } catch (error) {
        // The processor may be left in the middle of it.
        apart = undefined;
        return { id: item.id, runs: [], failed: error instanceof Error ? error.message : String(error) };
      }
    });
  }

  /** Works with the engine that prints citations, which knows `all` under ids of its own. */
  function citing<T>(
    all: CslItem[],
    work: (engine: ReturnType<typeof citations>['engine'], withIds: (works: CiteItem[]) => CiteItem[]) => T,
  ): T {
    const { engine, know, forgetAllBut } = citations();
    const ids = new Map(all.map((item) => [item.id, know(item)]));
    engine.updateItems([...ids.values()]);
    const done = work(engine, (works) => works.map((c) => ({ ...c, id: ids.get(c.id) ?? c.id })));
    forgetAllBut(new Set(ids.values()));
    return done;
  }

  function one(item: CslItem): PrintedReference {
    const { engine, know, itemOf, forgetAllBut } = singles();
    try {
      const id = know(item);
      engine.updateItems([id]);
      if (hasList) {
        const { label: _number, ...reference } = referenceOf(
          itemOf(id),
          engine.makeBibliography()[1][0] ?? '',
        );
        return reference;
      }
      const cluster = { citationItems: [{ id }], properties: { noteIndex: 1 } };
      return referenceOf(itemOf(id), engine.previewCitationCluster(cluster, [], [], 'html'));
    } finally {
      forgetAllBut(new Set());
    }
  }

  return {
    list(all) {
      try {
        return list(all);
      } catch (error) {
        return listOfTheRest(all, error);
      }
    },
    each,
    citation: (all, cited, named = false) =>
      citing(all, (engine, withIds) => {
        const cluster = (works: CiteItem[]) =>
          engine.previewCitationCluster(
            { citationItems: withIds(works), properties: { noteIndex: 1 } },
            [],
            [],
            'html',
          );
        const [first, ...others] = cited;
        const html =
          named && first
            ? `${cluster([{ id: first.id, 'author-only': true }])} ${cluster([{ ...first, 'suppress-author': true }, ...others])}`
            : cluster(cited);
        return runsOf(html, fieldOf(all.find((i) => i.id === cited[0]?.id)));
      }),
    citations(all, clusters) {
      const byId = new Map(all.map((item) => [item.id, item]));
      const printed = new Map<string, Run[]>();
      // What previews a citation numbers its works as the only ones there are; this numbers them among all.
      return citing(all, (engine, withIds) =>
        clusters.map((cited) => {
          const key = JSON.stringify(cited);
          const runs =
            printed.get(key) ??
            runsOf(engine.makeCitationCluster(withIds(cited)), fieldOf(byId.get(cited[0]?.id ?? '')));
          printed.set(key, runs);
          return runs;
        }),
      );
    },
  };
}
