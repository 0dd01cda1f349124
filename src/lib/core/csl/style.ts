import { compile, compileLayout, macroPart } from './compile';
import { elements, lookOf, type Area, type Compiling } from './elements';
import { localesIn, openLocale, type Locale } from './locale';
import type { PageRangeFormat } from './numbers';
import type { Look, Node } from './pieces';
import type { Part, Scope, Setting } from './scope';
import { comparing, sortKeysOf, type Compare, type SortKey } from './sorting';
import type { Tree } from './tree';

export type GivenRule =
  'all-names' | 'all-names-with-initials' | 'primary-name' | 'primary-name-with-initials' | 'by-cite';

/** The part of a style that prints citations, or the list. */
export interface CompiledArea {
  attrs: Record<string, string>;
  keys: SortKey[];
  compare: Compare;
  delimiter: string;
  prefix: string;
  suffix: string;
  look: Look | undefined;
  /** The number a work has in the list may print. */
  printsNumber: boolean;
  parts: Part[];
  print(scope: Scope): Node[];
}

/** A style compiled for a language. */
export interface CompiledStyle {
  setting: Setting;
  locale: Locale;
  isNote: boolean;
  citation: CompiledArea;
  bibliography: CompiledArea | undefined;
  addNames: boolean;
  addGiven: GivenRule | undefined;
  addYearSuffix: boolean;
  usesDisambiguate: boolean;
  /** Later mentions of a work can print otherwise than the first (`position`). */
  asksPosition: boolean;
  /** Parts of an entry can stand by themselves (`display`). */
  hasBlocks: boolean;
}

const INHERITED: Record<string, string> = {
  and: 'and', 'delimiter-precedes-et-al': 'delimiter-precedes-et-al', 'delimiter-precedes-last': 'delimiter-precedes-last',
  'et-al-min': 'et-al-min', 'et-al-use-first': 'et-al-use-first', 'et-al-subsequent-min': 'et-al-subsequent-min',
  'et-al-subsequent-use-first': 'et-al-subsequent-use-first', 'et-al-use-last': 'et-al-use-last', initialize: 'initialize',
  'initialize-with': 'initialize-with', 'name-as-sort-order': 'name-as-sort-order', 'sort-separator': 'sort-separator',
  'name-form': 'name-form', 'name-delimiter': 'name-delimiter', 'names-delimiter': 'names-delimiter',
}; // prettier-ignore

/** What is asked for anywhere in a style. */
interface Asked {
  yearSuffix: boolean;
  disambiguate: boolean;
  position: boolean;
  display: boolean;
}

function askedIn(
  tree: Tree,
  asked: Asked = { yearSuffix: false, disambiguate: false, position: false, display: false },
): Asked {
  const { attrs, children } = tree;
  if (attrs.variable === 'year-suffix' && tree.name === 'text') asked.yearSuffix = true;
  if (attrs.disambiguate !== undefined) asked.disambiguate = true;
  if (attrs.position !== undefined) asked.position = true;
  if (attrs.display !== undefined) asked.display = true;
  for (const kid of children) if (typeof kid !== 'string') askedIn(kid, asked);
  return asked;
}

/** Whether an element that names a variable is met in a tree, the macros it calls included. */
function reaches(tree: Tree, variable: string, macros: Map<string, Tree>, met = new Set<string>()): boolean {
  const { macro } = tree.attrs;
  if (tree.attrs.variable?.split(/\s+/).includes(variable)) return true;
  if (macro !== undefined && !met.has(macro)) {
    met.add(macro);
    const called = macros.get(macro);
    if (called && reaches(called, variable, macros, met)) return true;
  }
  return elements(tree).some((kid) => reaches(kid, variable, macros, met));
}

export interface StyleOptions {
  /** Abbreviations of a kind, such as `container-title`, by the full value. */
  abbreviation?: ((kind: string, value: string) => string | undefined) | undefined;
  /**
   * A title that a record tells in the language of the list stands in brackets behind the work’s own, as it is, without
   * the marks and letters of a title: in the list, and where a note cites a work in full. Common practice.
   */
  translations?: boolean;
  /** What prints says which elements it came through (`Piece.from`). */
  traced?: boolean;
}

/**
 * A style and the locales of a language, compiled: the style’s own terms before those of the locale files, which are given
 * nearest first. Throws an Error when there is no layout to print citations with.
 */
export function compileStyle(
  style: Tree,
  lang: string,
  locales: Tree[],
  options: StyleOptions = {},
): CompiledStyle {
  const locale = openLocale([...localesIn(style, lang), ...locales], lang);
  const top = elements(style);
  const macros = new Map(top.filter((m) => m.name === 'macro').map((m) => [m.attrs.name ?? '', m]));
  const asked = askedIn(style);
  const citationTree = top.find((t) => t.name === 'citation');
  const bibliographyTree = top.find((t) => t.name === 'bibliography');
  if (!citationTree) throw new Error('the style has no citation');
  const setting: Setting = {
    locale,
    lang,
    abbreviation: options.abbreviation,
    ownYearSuffix: asked.yearSuffix,
    nearNoteDistance: Number(citationTree.attrs['near-note-distance'] ?? 5),
    translations: options.translations ?? false,
  };
  const compileArea = (area: Area, tree: Tree): CompiledArea => {
    const inherited: Record<string, string> = {};
    for (const name of Object.keys(INHERITED)) {
      const value = tree.attrs[name] ?? style.attrs[name];
      if (value !== undefined) inherited[name] = value;
    }
    const pageFormat = style.attrs['page-range-format'] as PageRangeFormat | undefined;
    const c: Compiling = {
      style,
      locale,
      area,
      macros,
      made: new Map(),
      compile,
      macro: macroPart,
      inherited,
      pageFormat,
      pageDelimiter: locale.term('page-range-delimiter') ?? '\u2013',
      traced: options.traced ?? false,
    };
    const layout = elements(tree).find((l) => l.name === 'layout');
    if (!layout) throw new Error(`the style’s ${area} has no layout`);
    const keys = sortKeysOf(tree, c);
    return {
      attrs: tree.attrs,
      keys,
      compare: comparing(keys, lang),
      delimiter: layout.attrs.delimiter ?? '',
      prefix: layout.attrs.prefix ?? '',
      suffix: layout.attrs.suffix ?? '',
      look: lookOf(layout.attrs),
      printsNumber: reaches(layout, 'citation-number', macros),
      ...compileLayout(layout, c),
    };
  };
  const { attrs } = citationTree;
  const given = attrs['disambiguate-add-givenname'] === 'true';
  return {
    setting,
    locale,
    isNote: style.attrs.class === 'note',
    citation: compileArea('citation', citationTree),
    bibliography: bibliographyTree ? compileArea('bibliography', bibliographyTree) : undefined,
    addNames: attrs['disambiguate-add-names'] === 'true',
    addGiven: given ? ((attrs['givenname-disambiguation-rule'] ?? 'by-cite') as GivenRule) : undefined,
    addYearSuffix: attrs['disambiguate-add-year-suffix'] === 'true',
    usesDisambiguate: asked.disambiguate,
    asksPosition: asked.position,
    hasBlocks: asked.display,
  };
}
