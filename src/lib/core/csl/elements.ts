import { inCase, isEnglish, type TextCase } from './case';
import { textIn } from './item';
import type { Locale } from './locale';
import type { PageRangeFormat } from './numbers';
import { affixed, piece, type Display, type Look, type Node, type Piece } from './pieces';
import type { Part, Scope } from './scope';
import type { Tree } from './tree';

export type Attrs = Record<string, string>;
export type Area = 'citation' | 'bibliography';

/** What is known while a style is compiled. */
export interface Compiling {
  style: Tree;
  locale: Locale;
  area: Area;
  macros: Map<string, Tree>;
  made: Map<string, Part>;
  /** Name options of the area and the style. */
  inherited: Attrs;
  pageFormat: PageRangeFormat | undefined;
  pageDelimiter: string;
  /** Compiles an element, or a macro by its name. */
  compile(tree: Tree, c: Compiling): Part;
  macro(name: string, c: Compiling): Part;
  /** What prints says which element printed it. */
  traced?: boolean;
  /** Set for what stands directly in `substitute`, conditions gone through: the first that prints is all that does. */
  alternatives?: boolean;
  /** Set within `substitute`: what shorthand names take over. */
  names?: { tree: Tree };
}

export const elements = (tree: Tree): Tree[] => tree.children.filter((c): c is Tree => typeof c !== 'string');
export const child = (tree: Tree, name: string): Tree | undefined =>
  elements(tree).find((c) => c.name === name);

/** The look an element asks for, if any. CSL 1.0.2, "Formatting". */
export function lookOf(attrs: Attrs): Look | undefined {
  const look: Look = {};
  if (attrs['font-style']) look.style = attrs['font-style'] as 'italic';
  if (attrs['font-variant']) look.variant = attrs['font-variant'] as 'small-caps';
  if (attrs['font-weight']) look.weight = attrs['font-weight'] as 'bold';
  if (attrs['text-decoration']) look.decoration = attrs['text-decoration'] as 'underline';
  if (attrs['vertical-align']) look.align = attrs['vertical-align'] as 'sup';
  return Object.keys(look).length ? look : undefined;
}

/**
 * The look a name or a part of it asks for. What is as usual says nothing there: styles write it beside a look of the whole
 * list, and mean by it no more than its absence. Common practice.
 */
export const nameLookOf = (attrs: Attrs): Look | undefined =>
  lookOf(
    Object.fromEntries(
      Object.entries(attrs).filter(([, value]) => !['normal', 'none', 'baseline'].includes(value)),
    ),
  );

/**
 * Content without its full stops: those of values, terms and words, not those a style puts around them. CSL 1.0.2,
 * "Strip-periods"; for what a macro prints, common practice.
 */
function noPeriods(nodes: Node[]): Node[] {
  const go = (node: Node, content: boolean): Node => {
    if (typeof node === 'string') return content ? node.replace(/\./g, '') : node;
    const within = content || node.field !== undefined || node.kind !== undefined || node.unit === true;
    return { ...node, kids: node.kids.map((kid) => go(kid, within)) };
  };
  return nodes.map((node) => go(node, typeof node === 'string'));
}

/** Puts around what is printed what an element says; what stands `beside` it comes within its affixes alone. */
export interface Dress {
  (kids: Node[], scope: Scope, field?: string, beside?: Node): Node | undefined;
  /** It puts nothing around. */
  bare?: boolean;
}

/**
 * What the attributes of an element do around its content; affixes stand outside of the rest. CSL 1.0.2, "Affixes". Labels
 * are `words` of the style, whose capitals it sets in every language.
 */
export function dressOf(attrs: Attrs, locale: Locale, words = false): Dress {
  const look = lookOf(attrs);
  const textCase = attrs['text-case'] as TextCase | undefined;
  const strip = attrs['strip-periods'] === 'true';
  const quoted = attrs.quotes === 'true';
  const display = attrs.display as Display | undefined;
  const { prefix, suffix } = attrs;
  const plain = !look && !textCase && !strip && !quoted && !display;
  const dress: Dress = (given, scope, field, beside) => {
    let kids = given;
    if (plain && !field && kids.length === 1) return affixed(kids[0]!, prefix, suffix);
    if (strip) kids = noPeriods(kids);
    if (textCase) kids = inCase(kids, textCase, words ? 'en' : languageFor(scope, textCase));
    let node: Piece = { kids };
    if (look) node.look = look;
    // Quotation marks stand around the look.
    if (quoted) node = { kids: [node], quoted: true };
    if (beside) node = { kids: [node, ' ', beside] };
    if (field) node.field = field;
    const out = affixed(node, prefix, suffix);
    return display ? piece([out], { display }) : out;
  };
  dress.bare = plain && !prefix && !suffix;
  return dress;
}

/** The language letters are cased in; title case wants both style and work to be English. */
export function languageFor(scope: Scope, textCase: TextCase): string | undefined {
  const { language } = scope.item;
  const { lang } = scope.setting;
  if (textCase === 'title') return language ? (isEnglish(language) ? 'en' : language) : lang;
  return language && /^[a-z]{2}(?:-|$)/i.test(language) ? language : lang;
}

/** A value as it stands in the work or the citation, spent or not; looked up by the name of its variable once for all works. */
export function rawOf(variable: string): (scope: Scope) => string {
  switch (variable) {
    case 'locator':
      return (scope) => (scope.cite?.locator === undefined ? '' : String(scope.cite.locator).trim());
    case 'citation-number':
      return (scope) => (scope.number === undefined ? '' : String(scope.number));
    case 'first-reference-note-number':
      return (scope) => (scope.firstNote === undefined ? '' : String(scope.firstNote));
    case 'year-suffix':
      return (scope) => scope.yearSuffix ?? '';
    default:
      return (scope) => textIn(scope.item, variable);
  }
}

/** A value as it stands, or nothing when it has been spent. */
export function valueOf(variable: string): (scope: Scope) => string {
  const raw = rawOf(variable);
  return (scope) => (scope.spent?.has(variable) ? '' : raw(scope));
}

export const asked = (scope: Scope, found: boolean) => {
  scope.called = true;
  if (found) scope.found = true;
};

export const spend = (scope: Scope, variable: string) => {
  if (scope.substituting) (scope.spent ??= new Set()).add(variable);
};
