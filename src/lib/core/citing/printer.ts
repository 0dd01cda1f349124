import CSL from 'citeproc';
import { creatorsOf, isNameVariable, type CslItem, type SourceRecord } from '../source';
import { runsOf, runsToText, type Run } from './runs';
import { nodesNamed, type Tree } from './tree';

/** A printed reference. `label` is what stands before it in styles that number or name entries. */
export interface PrintedReference {
  id: string;
  runs: Run[];
  label?: string;
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
  prefix?: string;
  suffix?: string;
}

/** Prints in one style and one language. Not safe for use from two places at once. */
export interface Printer {
  list(items: CslItem[]): PrintedList;
  each(items: CslItem[]): PrintedReference[];
  citation(items: CslItem[], cited: CiteItem[]): Run[];
}

export type CitationFormat = 'author-date' | 'author' | 'numeric' | 'label' | 'note';

/** What a style says of itself. */
export function styleFacts(style: Tree): { format: CitationFormat; hasList: boolean; locale?: string } {
  const format = nodesNamed(style, 'category')
    .map((c) => c.attrs['citation-format'])
    .find(Boolean) as CitationFormat | undefined;
  const locale = style.attrs['default-locale'];
  return {
    format: format ?? (style.attrs.class === 'note' ? 'note' : 'author-date'),
    hasList: nodesNamed(style, 'bibliography').length > 0,
    ...(locale ? { locale } : {}),
  };
}

/** What the processor prints when a style has nothing to say of a record. */
const NOTHING = /^\s*\[CSL STYLE ERROR: reference with no printed form\.\]\s*$/;

/**
 * A printer for a style and the locale of a language. Throws an Error in the processor's words when the style
 * cannot be used.
 */
export function createPrinter(style: Tree, locale: Tree, lang: string): Printer {
  let items = new Map<string, CslItem>();
  const sys = {
    retrieveLocale: () => locale,
    retrieveItem: (id: string) => structuredClone(items.get(id)),
    variableWrapper: (
      { variableNames }: { variableNames: string[] },
      before: string,
      text: string,
      after: string,
    ) => `${before}<span data-variables="${variableNames.join(' ')}">${text}</span>${after}`,
  };
  const engine = new CSL.Engine(sys, style, lang, true);
  engine.opt.development_extensions.wrap_url_and_doi = false;
  const { hasList } = styleFacts(style);

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
  const referenceOf = (id: string, html: string): PrintedReference => {
    const fields = fieldOf(items.get(id));
    const body = html.replace(/^\s*<div class="csl-entry">|<\/div>\s*$/g, '');
    const margin =
      /^\s*<div class="csl-left-margin">([\s\S]*?)<\/div>\s*<div class="csl-right-inline">([\s\S]*)<\/div>\s*$/.exec(
        body,
      );
    const text = (margin ? margin[2]! : body).replace(/<\/?div[^>]*>/g, ' ');
    const runs = NOTHING.test(text) ? [] : runsOf(text, fields);
    const label = margin ? runsToText(runsOf(margin[1]!, fields)) : undefined;
    return { id, runs, ...(label ? { label } : {}) };
  };

  return {
    list(all) {
      items = new Map(all.map((i) => [i.id, i]));
      if (!hasList) return { entries: [], hangingIndent: false, hasList };
      engine.updateItems(all.map((i) => i.id));
      const [meta, entries] = engine.makeBibliography();
      return {
        entries: entries.map((html, i) => referenceOf(String(meta.entry_ids[i]![0]), html)),
        hangingIndent: Boolean(meta.hangingindent),
        hasList,
      };
    },
    each(all) {
      return all.map((item) => {
        items = new Map([[item.id, item]]);
        engine.updateItems([item.id]);
        if (hasList) {
          const { label: _number, ...reference } = referenceOf(
            item.id,
            engine.makeBibliography()[1][0] ?? '',
          );
          return reference;
        }
        const cluster = { citationItems: [{ id: item.id }], properties: { noteIndex: 1 } };
        return referenceOf(item.id, engine.previewCitationCluster(cluster, [], [], 'html'));
      });
    },
    citation(all, cited) {
      items = new Map(all.map((i) => [i.id, i]));
      engine.updateItems(all.map((i) => i.id));
      const cluster = { citationItems: cited.map((c) => ({ ...c })), properties: { noteIndex: 1 } };
      const html = engine.previewCitationCluster(cluster, [], [], 'html');
      return runsOf(html, fieldOf(items.get(cited[0]?.id ?? '')));
    },
  };
}
