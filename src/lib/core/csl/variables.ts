import { TRANSLATED, translationIn } from '../source';
import type { TextCase } from './case';
import { dateKey, dateNodes, RANGE_DELIMITER, type DatePart, type DatePartName } from './dates';
import {
  asked,
  dressOf,
  elements,
  lookOf,
  spend,
  valueOf,
  type Attrs,
  type Compiling,
  type Dress,
} from './elements';
import { dateIn, namesIn, NUMBER_VARIABLES, textIn, type Item, type NameValue } from './item';
import type { Gender, Locale, TermForm } from './locale';
import { isNumeric, isSeveral, numberText, pageRanges, type NumberForm } from './numbers';
import { affixed, isEmpty, piece, type Node } from './pieces';
import { richText } from './rich';
import { FIRST, type Part, type Scope } from './scope';
import type { Tree } from './tree';

/** What stands in the text of these is no mark of anything. */
const PLAIN = new Set(['URL', 'DOI', 'PMID', 'PMCID', 'ISBN', 'ISSN']);

export function textPart(tree: Tree, c: Compiling): Part {
  const { attrs } = tree;
  const { locale } = c;
  const dress = dressOf(attrs, locale);
  if (attrs.macro !== undefined) {
    const macro = c.macro(attrs.macro, c);
    if (dress.bare) return macro;
    return (scope) => {
      const node = macro(scope);
      return node === undefined ? undefined : dress([node], scope);
    };
  }
  if (attrs.term !== undefined) {
    const { term, form } = attrs;
    const plural = attrs.plural === 'true';
    const text = locale.term(term === 'sub verbo' ? 'sub-verbo' : term, form as TermForm | undefined, plural);
    if (text === undefined) return () => undefined;
    // One whose letters the style sets itself takes no capital for standing first.
    const nodes = [piece(richText(text), { kind: attrs['text-case'] ? 'words' : 'term' })];
    // A term that a language leaves empty prints, as nothing, without what the style puts around it.
    return text === '' ? () => nodes[0] : (scope) => dress(nodes, scope);
  }
  if (attrs.value !== undefined) {
    const nodes = richText(attrs.value);
    return attrs.value === '' ? () => undefined : (scope) => dress(nodes, scope);
  }
  const { variable = '', form } = attrs;
  if (variable === 'citation-label') return labelVariable(dress);
  if (variable === 'year-suffix')
    return (scope) => {
      const text = scope.yearSuffix ?? '';
      // That there is none says nothing of the work.
      if (text === '' || scope.sorting) return undefined;
      asked(scope, true);
      scope.suffixPrinted = true;
      return dress([piece([text], { kind: 'suffix' })], scope);
    };
  const number = NUMBER_VARIABLES.has(variable);
  const marked = !PLAIN.has(variable);
  const paged = variable === 'page' || variable === 'page-first';
  const translated = (TRANSLATED as readonly string[]).includes(variable) && form !== 'short';
  const isNote = c.style.attrs.class === 'note';
  const whole = valueOf(variable);
  const short = form === 'short' ? valueOf(`${variable}-short`) : undefined;
  return (scope) => {
    let value = '';
    if (short && !scope.spent?.has(variable)) {
      value = short(scope);
      if (!value) {
        const full = whole(scope);
        value = (full && scope.setting.abbreviation?.(variable, full)) || '';
      }
    }
    if (!value) value = whole(scope);
    asked(scope, value !== '');
    if (value === '') return undefined;
    spend(scope, variable);
    if (scope.sorting && variable === 'citation-number') return value.padStart(6, '0');
    if (variable === 'locator') {
      const label = scope.cite?.label ?? 'page';
      value =
        label === 'page' || !/^\s*[A-Za-z]*\d/.test(value)
          ? pageRanges(value, c.pageFormat, c.pageDelimiter)
          : value.replace(/(\d)\s*(?:--|-)\s*(?=\d)/g, `$1${RANGE_DELIMITER}`);
      value = value.replace(/(?<!\s)\s*&\s*/g, ` ${locale.own('and', 'symbol') ?? '&'} `);
      return dress([piece(richText(value), { kind: 'locator' })], scope, variable);
    }
    if (paged) value = pageRanges(value, c.pageFormat, c.pageDelimiter);
    else if (number) value = numberText(value, 'numeric', locale);
    if (variable === 'citation-number') return dress([piece([value], { kind: 'number' })], scope, variable);
    const beside = translated ? inBrackets(scope, variable, isNote) : undefined;
    return dress(marked ? richText(value) : [value], scope, variable, beside);
  };
}

/** A title in the language of the list, where the record tells one and the style prints the work in full. */
function inBrackets(scope: Scope, variable: string, isNote: boolean): Node | undefined {
  if (!scope.setting.translations || scope.sorting || scope.comparing) return undefined;
  if (scope.area === 'citation' && !(isNote && scope.position === FIRST)) return undefined;
  const text = translationIn(scope.item, variable, scope.setting.lang);
  return text
    ? piece(['[', ...richText(text), ']'], { look: { style: 'normal', weight: 'normal' } })
    : undefined;
}

/** A label of letters of the names and the year, where the record has none. CSL 1.0.2, "Standard Variables", `citation-label`. */
export function labelOf(item: Item): string {
  const given = textIn(item, 'citation-label');
  if (given) return given;
  let names: NameValue[] = [];
  for (const role of ['author', 'editor', 'translator', 'director', 'composer']) {
    names = namesIn(item, role);
    if (names.length) break;
  }
  const year = dateIn(item, 'issued')?.from?.year;
  const last = names
    .map((n) => n.family ?? n.literal ?? n.given ?? '')
    .map((n) => n.replace(/[^\p{L}]/gu, ''));
  const each = last.length === 1 ? 4 : last.length < 4 ? (last.length === 2 ? 2 : 1) : 1;
  let letters = last
    .slice(0, 4)
    .map((n, i) => n.slice(0, last.length === 3 && i === 0 ? 2 : each))
    .join('');
  if (!letters) {
    letters = textIn(item, 'title')
      .replace(/[^\p{L}]/gu, '')
      .slice(0, 4);
  }
  return letters + (year === undefined ? '' : String(Math.abs(year) % 100).padStart(2, '0'));
}

const labelVariable =
  (dress: Dress): Part =>
  (scope) => {
    const text = labelOf(scope.item);
    asked(scope, text !== '');
    if (!text) return undefined;
    const nodes: Node[] = [text];
    if (scope.yearSuffix && !scope.suffixPrinted && !scope.setting.ownYearSuffix) {
      scope.suffixPrinted = true;
      nodes.push(piece([scope.yearSuffix], { kind: 'suffix' }));
    }
    return dress(nodes, scope, 'citation-label');
  };

/** The noun a number is counted by, whose gender its ordinal takes. CSL 1.0.2, "Gender-specific Ordinals". */
const nounOf = (variable: string) => (variable.startsWith('number-of-') ? variable.slice(10, -1) : variable);

export function numberPart(tree: Tree, c: Compiling): Part {
  const { variable = '', form = 'numeric' } = tree.attrs;
  const { locale } = c;
  const dress = dressOf(tree.attrs, locale);
  const valueIn = valueOf(variable);
  return (scope) => {
    const value = valueIn(scope);
    asked(scope, value !== '');
    if (value === '') return undefined;
    spend(scope, variable);
    if (scope.sorting) return /^\d+$/.test(value.trim()) ? value.trim().padStart(8, '0') : value;
    const gender: Gender | undefined = locale.genderOf(nounOf(variable));
    const text =
      variable === 'page'
        ? pageRanges(value, c.pageFormat, c.pageDelimiter)
        : numberText(value, form as NumberForm, locale, gender);
    const nodes =
      variable === 'locator'
        ? [piece(richText(text), { kind: 'locator' })]
        : variable === 'citation-number'
          ? [piece([text], { kind: 'number' })]
          : [text];
    return dress(nodes, scope, variable);
  };
}

/** A locator that brings its label with it: "vol. 1". */
const ownLabel = (locator: string) => /^\s*\p{L}{1,4}\.\s*\d/u.test(locator);

export function labelPart(tree: Tree, c: Compiling): Part {
  const { variable = '', form = 'long', plural = 'contextual' } = tree.attrs;
  const { locale } = c;
  const dress = dressOf(tree.attrs, locale, true);
  const valueIn = valueOf(variable);
  return (scope) => {
    if (variable === 'locator' && ownLabel(String(scope.cite?.locator ?? ''))) return undefined;
    const value = valueIn(scope);
    if (value === '' && scope.sorting) return undefined;
    const term =
      variable === 'locator'
        ? (scope.cite?.label ?? 'page').replace(' ', '-')
        : locale.term(variable, form as TermForm) === undefined
          ? nounOf(variable)
          : variable;
    const several =
      plural === 'always' ||
      (plural !== 'never' &&
        (variable.startsWith('number-of-')
          ? isNumeric(value) && !/^\s*1\s*$/.test(value)
          : isSeveral(value)));
    const text =
      locale.term(term, form as TermForm, several) ??
      (term === 'sub-verbo' ? locale.term('sub verbo', form as TermForm, several) : undefined);
    return text ? dress([piece([text], { kind: 'label' })], scope) : undefined;
  };
}

function datePart(tree: Tree): DatePart {
  const { attrs } = tree;
  const look = lookOf(attrs);
  return {
    name: attrs.name as DatePartName,
    ...(attrs.form ? { form: attrs.form } : {}),
    ...(attrs.prefix ? { prefix: attrs.prefix } : {}),
    ...(attrs.suffix ? { suffix: attrs.suffix } : {}),
    ...(look ? { look } : {}),
    ...(attrs['text-case'] ? { textCase: attrs['text-case'] as TextCase } : {}),
    stripPeriods: attrs['strip-periods'] === 'true',
    rangeDelimiter: attrs['range-delimiter'] ?? RANGE_DELIMITER,
  };
}

/** The parts a date element prints; localised dates take the locale’s, as the element changes them. CSL 1.0.2, "Localized Date Formats". */
function datePartsOf(
  tree: Tree,
  locale: Locale,
): { parts: DatePart[]; delimiter: string | undefined; dress: Attrs } {
  const own = elements(tree).filter((p) => p.name === 'date-part');
  const { form } = tree.attrs;
  if (!form) return { parts: own.map(datePart), delimiter: tree.attrs.delimiter, dress: tree.attrs };
  const localized = locale.date(form);
  const wanted = (tree.attrs['date-parts'] ?? 'year-month-day').split('-');
  const parts = (localized ? elements(localized) : [])
    .filter((p) => p.name === 'date-part' && wanted.includes(p.attrs.name ?? ''))
    .map((p) => {
      const mine = own.find((o) => o.attrs.name === p.attrs.name);
      if (!mine) return datePart(p);
      const { prefix: _p, suffix: _s, ...changed } = mine.attrs;
      return datePart({ ...p, attrs: { ...p.attrs, ...changed } });
    });
  const dress = { ...localized?.attrs, ...tree.attrs };
  delete dress.form;
  return { parts, delimiter: localized?.attrs.delimiter ?? tree.attrs.delimiter, dress };
}

export function datePartElement(tree: Tree, c: Compiling): Part {
  const { variable = '' } = tree.attrs;
  const { locale } = c;
  const { parts, delimiter, dress: attrs } = datePartsOf(tree, locale);
  const dress = dressOf(attrs, locale);
  const year = parts.find((p) => p.name === 'year');
  const printsYear = year !== undefined;
  // A date in words looks as its year would, between what a style has around the whole of its parts.
  const yearLook = year?.look;
  const before = year === parts[0] ? year?.prefix : undefined;
  const behind = year === parts[parts.length - 1] ? year?.suffix : undefined;
  return (scope) => {
    const date = scope.spent?.has(variable) ? undefined : dateIn(scope.item, variable);
    scope.called = true;
    if (!date || (scope.comparing && variable === 'accessed')) return undefined;
    if (date.literal !== undefined && scope.sorting) return undefined;
    if (date.literal !== undefined && !printsYear) return undefined;
    if (date.literal !== undefined) {
      spend(scope, variable);
      scope.found = true;
      const nodes: Node[] = [
        affixed(
          piece(richText(date.literal), { kind: 'year', ...(yearLook ? { look: yearLook } : {}) }),
          before,
          behind,
        ),
      ];
      return dress(nodes, scope, variable);
    }
    if (scope.sorting) {
      scope.found = true;
      const has = (name: DatePartName) => parts.some((p) => p.name === name);
      return dateKey(date, has);
    }
    const nodes = dateNodes(date, parts, delimiter, locale);
    if (nodes.every(isEmpty)) return undefined;
    scope.found = true;
    spend(scope, variable);
    if (printsYear) addSuffix(scope, nodes);
    return dress(nodes, scope, variable);
  };
}

/** Puts the letter that tells works of a year apart behind the year, where the style has no place of its own for it. */
function addSuffix(scope: Scope, nodes: Node[]): void {
  if (!scope.yearSuffix || scope.suffixPrinted || scope.setting.ownYearSuffix) return;
  const suffix = piece([scope.yearSuffix], { kind: 'suffix' });
  const put = (node: Node): Node | undefined => {
    if (typeof node === 'string') return undefined;
    if (node.kind === 'year') return { ...node, kids: [...node.kids, suffix] };
    for (let i = node.kids.length - 1; i >= 0; i--) {
      const changed = put(node.kids[i]!);
      if (changed !== undefined) {
        const kids = [...node.kids];
        kids[i] = changed;
        return { ...node, kids };
      }
    }
    return undefined;
  };
  for (let i = nodes.length - 1; i >= 0; i--) {
    const changed = put(nodes[i]!);
    if (changed !== undefined) {
      nodes[i] = changed;
      scope.suffixPrinted = true;
      return;
    }
  }
}
