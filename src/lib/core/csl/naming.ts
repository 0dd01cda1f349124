import type { TextCase } from './case';
import {
  asked,
  child,
  dressOf,
  elements,
  languageFor,
  lookOf,
  nameLookOf,
  spend,
  type Attrs,
  type Compiling,
} from './elements';
import { namesIn, type NameValue } from './item';
import type { TermForm } from './locale';
import {
  listNode,
  nameNode,
  sameName,
  shownOf,
  type NameOptions,
  type NamePart,
  type Precedes,
} from './names';
import { affixed, findKind, isEmpty, joined, piece, type Node } from './pieces';
import { SUBSEQUENT, type Part, type Scope } from './scope';
import type { Tree } from './tree';

/** Options of names that an area or a whole style may set for all names in it. CSL 1.0.2, "Inheritable Name Options". */
export const NAME_ATTRIBUTES = [
  'and', 'delimiter-precedes-et-al', 'delimiter-precedes-last', 'et-al-min', 'et-al-use-first', 'et-al-subsequent-min',
  'et-al-subsequent-use-first', 'et-al-use-last', 'initialize', 'initialize-with', 'name-as-sort-order', 'sort-separator',
]; // prettier-ignore

const numberIn = (text: string | undefined) => (text === undefined ? undefined : Number(text));

const partLook = (tree: Tree | undefined): NamePart | undefined => {
  if (!tree) return undefined;
  const look = nameLookOf(tree.attrs);
  const { prefix, suffix } = tree.attrs;
  const textCase = tree.attrs['text-case'] as TextCase | undefined;
  return {
    ...(look ? { look } : {}),
    ...(textCase ? { textCase } : {}),
    ...(prefix ? { prefix } : {}),
    ...(suffix ? { suffix } : {}),
  };
};

function nameOptions(names: Tree, name: Tree | undefined, c: Compiling): NameOptions {
  const own: Attrs = {};
  for (const key of NAME_ATTRIBUTES) {
    const value = name?.attrs[key] ?? names.attrs[key] ?? c.inherited[key];
    if (value !== undefined) own[key] = value;
  }
  const form = name?.attrs.form ?? names.attrs['name-form'] ?? c.inherited['name-form'] ?? 'long';
  const look = name && nameLookOf(name.attrs);
  const family = partLook(name && elements(name).find((p) => p.attrs.name === 'family'));
  const given = partLook(name && elements(name).find((p) => p.attrs.name === 'given'));
  const min = numberIn(own['et-al-min']);
  const useFirst = numberIn(own['et-al-use-first']);
  const subsequentMin = numberIn(own['et-al-subsequent-min']);
  const subsequentUseFirst = numberIn(own['et-al-subsequent-use-first']);
  return {
    ...(own.and ? { and: own.and as 'text' } : {}),
    delimiter:
      name?.attrs.delimiter ?? names.attrs['name-delimiter'] ?? c.inherited['name-delimiter'] ?? ', ',
    precedesEtAl: (own['delimiter-precedes-et-al'] ?? 'contextual') as Precedes,
    precedesLast: (own['delimiter-precedes-last'] ?? 'contextual') as Precedes,
    ...(min !== undefined ? { min } : {}),
    ...(useFirst !== undefined ? { useFirst } : {}),
    ...(subsequentMin !== undefined ? { subsequentMin } : {}),
    ...(subsequentUseFirst !== undefined ? { subsequentUseFirst } : {}),
    useLast: own['et-al-use-last'] === 'true',
    form: form as 'long',
    initialize: own.initialize !== 'false',
    ...(own['initialize-with'] !== undefined ? { initializeWith: own['initialize-with'] } : {}),
    hyphenated: c.style.attrs['initialize-with-hyphen'] !== 'false',
    ...(own['name-as-sort-order'] ? { sortOrder: own['name-as-sort-order'] as 'first' } : {}),
    sortSeparator: own['sort-separator'] ?? ', ',
    demote: (c.style.attrs['demote-non-dropping-particle'] ?? 'display-and-sort') as 'never',
    ...(look ? { look } : {}),
    ...(name?.attrs.prefix ? { prefix: name.attrs.prefix } : {}),
    ...(name?.attrs.suffix ? { suffix: name.attrs.suffix } : {}),
    ...(family ? { family } : {}),
    ...(given ? { given } : {}),
  };
}

const sameNames = (a: NameValue[], b: NameValue[]) =>
  a.length === b.length && a.every((n, i) => sameName(n, b[i]!));

/** The names of a role that a work has. */
interface RoleNames {
  role: string;
  names: NameValue[];
}
const NO_LISTS: RoleNames[] = [];

/** Whether the editors of a work are its translators. CSL 1.0.2, "Names", `editortranslator`. */
const areOne = (found: RoleNames[]): boolean =>
  found.length === 2 &&
  found
    .map(({ role }) => role)
    .sort()
    .join() === 'editor,translator' &&
  sameNames(found[0]!.names, found[1]!.names);

/** Whether these are the names that are left out; only the first are. */
function leftOut(scope: Scope): boolean {
  const out = scope.withoutNames && !scope.substituting;
  if (out) scope.withoutNames = false;
  return out;
}

/** A `names` element: its lists with their labels, or what stands in for them. CSL 1.0.2, "Names". */
export function namesPart(tree: Tree, c: Compiling): Part {
  const { locale } = c;
  const base = c.names?.tree;
  // In `substitute`, names without parts of their own take those of the names they stand in for.
  const bare = elements(tree).filter((k) => k.name !== 'institution').length === 0;
  const source = bare && base ? { ...base, attrs: { ...base.attrs, ...tree.attrs } } : tree;
  const name = child(source, 'name');
  const etAl = child(source, 'et-al');
  const label = child(source, 'label');
  const substitute = bare && base ? undefined : child(tree, 'substitute');
  const options = nameOptions(source, name, c);
  const as = { initials: options.initializeWith !== undefined, short: options.form === 'short' };
  const variables = (tree.attrs.variable ?? '').split(/\s+/).filter(Boolean);
  // Without an element of its own, "et al." looks as the names do.
  const etAlLook = etAl ? lookOf(etAl.attrs) : options.look;
  const look = {
    etAlTerm: locale.term(etAl?.attrs.term ?? 'et-al') ?? '',
    ...(etAlLook ? { etAlLook } : {}),
    ...(options.and
      ? { and: (options.and === 'symbol' ? locale.own('and', 'symbol') : locale.term('and')) ?? '&' }
      : {}),
  };
  const sortLook = { etAlTerm: '' };
  const kids = elements(source);
  const labelFirst = label !== undefined && (name ? kids.indexOf(label) < kids.indexOf(name) : false);
  const labelDress = label && dressOf(label.attrs, locale, true);
  const delimiter = source.attrs.delimiter ?? c.inherited['names-delimiter'] ?? '';
  const dress = dressOf(bare && base ? source.attrs : tree.attrs, locale);
  // What stands in for names looks as they do, but has none of their affixes.
  const { prefix: _prefix, suffix: _suffix, ...looks } = tree.attrs;
  const dressInstead = dressOf(looks, locale);
  // Compiled when first needed: what stands in is seldom wanted, and may call much.
  const substitutes = substitute
    ? elements(substitute).map((by) => {
        let made: Part | undefined;
        const part: Part = (scope) =>
          (made ??= c.compile(by, { ...c, made: new Map(), names: { tree }, alternatives: true }))(scope);
        return { tree: by, part };
      })
    : [];

  const labelNode = (scope: Scope, role: string, count: number): Node | undefined => {
    if (!label || !labelDress) return undefined;
    const { form = 'long', plural = 'contextual' } = label.attrs;
    const several = plural === 'always' || (plural !== 'never' && count > 1);
    const text = locale.term(role, form as TermForm, several);
    return text ? labelDress([piece([text], { kind: 'label' })], scope) : undefined;
  };

  const one = (scope: Scope, role: string, names: NameValue[]): Node | undefined => {
    const index = scope.lists.length;
    const subsequent = scope.area === 'citation' && scope.position >= SUBSEQUENT;
    const shown = shownOf(
      names.length,
      options,
      scope.comparing ? 'either' : subsequent ? 'later' : 'first',
      scope.levels?.show?.[index],
      scope.sorting,
    );
    const inverted: boolean[] = [];
    const sorting = scope.sorting !== undefined;
    const lang = languageFor(scope, 'uppercase') ?? locale.lang;
    const print = (n: NameValue, i: number): Node => {
      // In the list, names that are written with their given names need no telling apart.
      const level =
        scope.area === 'bibliography' && !as.short
          ? 0
          : Math.max(scope.levels?.given?.[index]?.[i] ?? 0, scope.levelOf?.(n, index, i, as) ?? 0);
      const invert = options.sortOrder === 'all' || (options.sortOrder === 'first' && i === 0);
      inverted.push(invert && n.literal === undefined);
      const node = nameNode(n, options, invert, level, lang, sorting);
      const made = piece([node], { kind: 'name', who: n, ...(options.look ? { look: options.look } : {}) });
      return n.literal !== undefined && !n.family ? made : affixed(made, options.prefix, options.suffix);
    };
    const nodes: Node[] = [];
    for (let i = 0; i < shown; i++) nodes.push(print(names[i]!, i));
    scope.lists.push({
      names,
      shown,
      as,
      lang,
    });
    const useLast = scope.sorting?.useLast ?? options.useLast;
    const last =
      useLast && shown < names.length && names.length - shown >= 2
        ? print(names[names.length - 1]!, names.length - 1)
        : undefined;
    if (options.form === 'count') return String(shown);
    const list = listNode(nodes, inverted, names.length, options, sorting ? sortLook : look, last);
    if (list.length === 0) return undefined;
    const list_ = piece(list, { field: role, kind: 'list' });
    if (sorting) return list_;
    const lab = labelNode(scope, role, names.length);
    if (lab === undefined) return list_;
    return labelFirst ? piece([lab, list_]) : piece([list_, lab]);
  };

  return (scope) => {
    let found = NO_LISTS;
    for (let i = 0; i < variables.length; i++) {
      const role = variables[i]!;
      if (scope.spent?.has(role)) continue;
      const names = namesIn(scope.item, role);
      if (names.length === 0) continue;
      if (found === NO_LISTS) found = [{ role, names }];
      else found.push({ role, names });
    }
    const foundBefore = scope.found;
    let node: Node | undefined;
    if (found.length) {
      asked(scope, true);
      const first = found[0]!;
      if (label && areOne(found) && locale.term('editortranslator', label.attrs.form as TermForm)) {
        node = one(scope, 'editortranslator', first.names);
      } else if (options.form === 'count') {
        const total = found.reduce((sum, f) => sum + Number(one(scope, f.role, f.names) ?? 0), 0);
        node = total ? String(total) : undefined;
        return node === undefined ? undefined : dress([node], scope);
      } else if (found.length === 1) node = one(scope, first.role, first.names);
      else {
        const lists = found.map((f) => one(scope, f.role, f.names)).filter((n): n is Node => n !== undefined);
        node = lists.length ? (lists.length === 1 ? lists[0]! : piece(joined(lists, delimiter))) : undefined;
      }
      if (scope.substituting) for (const f of found) spend(scope, f.role);
      if (node !== undefined && leftOut(scope)) return undefined;
      return node === undefined ? undefined : dress([piece([node], { kind: 'names' })], scope, undefined);
    }
    asked(scope, false);
    for (let i = 0; i < substitutes.length; i++) {
      const { part, tree: by } = substitutes[i]!;
      const outer = scope.substituting;
      scope.substituting = true;
      scope.called = false;
      scope.found = false;
      const instead = part(scope);
      scope.substituting = outer;
      // A term the style has emptied ends the search as well.
      // In a key to sort by, words of the style do not stand for a name.
      if (scope.sorting && (by.attrs.term ?? by.attrs.value) !== undefined) continue;
      if (instead !== undefined && (!isEmpty(instead) || findKind(instead, 'term'))) {
        scope.called = true;
        // Words of the style alone say nothing of the work: a macro that has no more prints nothing. Common practice.
        scope.found ||= foundBefore;
        if (leftOut(scope)) return undefined;
        const names = piece([instead], { kind: 'names' });
        return by.name === 'names' ? names : dressInstead([names], scope);
      }
    }
    scope.called = true;
    scope.found = foundBefore;
    // Sorted by how many there are, none comes before one; what could stand in for others is not there.
    if (options.form !== 'count' || !scope.sorting || scope.substituting) return undefined;
    scope.found = true;
    return '0';
  };
}
