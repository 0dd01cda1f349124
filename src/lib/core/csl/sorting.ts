import { compile } from './compile';
import { elements, type Compiling } from './elements';
import { dateKey } from './dates';
import { dateIn, DATE_VARIABLES, NAME_VARIABLES, NUMBER_VARIABLES } from './item';
import { textOf } from './pieces';
import type { Part, Scope } from './scope';
import type { Tree } from './tree';

/** What a work is sorted by under one key: its words, each as it stands and without its capitals. */
export interface SortValue {
  text: string;
  words: string[];
  plain: (string | undefined)[];
}

/** A key of a style to sort by. CSL 1.0.2, "Sorting". */
export interface SortKey {
  of(scope: Scope): SortValue;
  descending: boolean;
  /** It is the number a work has in the list. */
  isNumber: boolean;
}

/** What is sorted: its keys so far, and where the next is made. Most lists are in order by the first. */
export interface Sorted {
  keys: SortValue[];
  scope(): Scope;
}

export type Compare = (a: Sorted, b: Sorted) => number;

const numberIn = (text: string | undefined) => (text === undefined ? undefined : Number(text));

/** The keys of the `sort` of an area. */
export function sortKeysOf(area: Tree, c: Compiling): SortKey[] {
  const sort = elements(area).find((k) => k.name === 'sort');
  if (!sort) return [];
  return elements(sort)
    .filter((k) => k.name === 'key')
    .map((key): SortKey => {
      const { variable, macro } = key.attrs;
      const min = numberIn(key.attrs['names-min']);
      const useFirst = numberIn(key.attrs['names-use-first']);
      const useLast = key.attrs['names-use-last'];
      const sorting = {
        ...(min !== undefined ? { min } : {}),
        ...(useFirst !== undefined ? { useFirst } : {}),
        ...(useLast !== undefined ? { useLast: useLast === 'true' } : {}),
      };
      const part = partOf(variable, macro, c);
      return {
        descending: key.attrs.sort === 'descending',
        isNumber: variable === 'citation-number' || (macro !== undefined && printsNumber(macro, c)),
        of(scope) {
          if (variable !== undefined && DATE_VARIABLES.has(variable))
            return sortValue(dateKey(dateIn(scope.item, variable)));
          scope.sorting = sorting;
          const node = part(scope);
          scope.sorting = undefined;
          return sortValue(sortable(textOf(node)));
        },
      };
    });
}

/** Whether a macro prints the number of a work and nothing else. */
function printsNumber(macro: string, c: Compiling): boolean {
  const tree = c.macros.get(macro);
  const [only, more] = tree ? elements(tree) : [];
  return (
    only !== undefined &&
    !more &&
    (only.name === 'text' || only.name === 'number') &&
    only.attrs.variable === 'citation-number'
  );
}

function partOf(variable: string | undefined, macro: string | undefined, c: Compiling): Part {
  const leaf = (name: string, attrs: Record<string, string>, children: Tree[] = []): Tree => ({
    name,
    attrs,
    children,
  });
  if (macro !== undefined) return compile(leaf('text', { macro }), c);
  if (variable === undefined) return () => undefined;
  if (NAME_VARIABLES.has(variable))
    return compile(
      leaf('names', { variable }, [leaf('name', { form: 'long', 'name-as-sort-order': 'all' })]),
      c,
    );
  if (NUMBER_VARIABLES.has(variable)) return compile(leaf('number', { variable }), c);
  return compile(leaf('text', { variable }), c);
}

/** A key without what does not count in sorting: marks of look and quotation. */
const sortable = (text: string) => text.replace(/["'\u2018\u2019\u201c\u201d]/g, '').trim();

/** A word of small Latin letters alone, which sorts letter by letter in the languages of `LETTER_BY_LETTER`. */
const PLAIN = /^[a-z]+$/;

/** Languages in which letters without marks sort as they stand in the alphabet; Unicode CLDR, root collation. */
const LETTER_BY_LETTER = /^(?:en|de|fr|it|nl|pt|es)\b/i;

/** A key as words, which compare one by one: a name comes before a longer one that begins with it. */
function sortValue(text: string): SortValue {
  const words = text.split(/[\s,;]+/);
  const plain = words.map((w) => {
    const small = w.toLowerCase();
    return PLAIN.test(small) ? small : undefined;
  });
  return { text, words, plain };
}

/** Each is made when it is first needed, which takes longer than the rest of a style. */
const collators = new Map<string, Intl.Collator['compare']>();

function collatorOf(lang: string): Intl.Collator['compare'] {
  let known = collators.get(lang);
  if (!known) {
    known = new Intl.Collator(lang, { sensitivity: 'base', ignorePunctuation: true, numeric: true }).compare;
    collators.set(lang, known);
  }
  return known;
}

/** How keys of a language compare: letter by letter, whatever their case, numbers by their value; what is empty comes last. */
export function comparing(keys: SortKey[], lang: string): Compare {
  let compare: Intl.Collator['compare'] | undefined;
  const byLetter = LETTER_BY_LETTER.test(lang);
  const byWords = (x: SortValue, y: SortValue): number => {
    const most = Math.min(x.words.length, y.words.length);
    for (let i = 0; i < most; i++) {
      const p = x.plain[i];
      const q = y.plain[i];
      if (byLetter && p !== undefined && q !== undefined) {
        if (p !== q) return p < q ? -1 : 1;
        continue;
      }
      compare ??= collatorOf(lang);
      const way = compare(x.words[i]!, y.words[i]!);
      if (way !== 0) return way;
    }
    return x.words.length - y.words.length;
  };
  const keyOf = (of: Sorted, i: number) => (of.keys[i] ??= keys[i]!.of(of.scope()));
  return (a, b) => {
    for (let i = 0; i < keys.length; i++) {
      const x = keyOf(a, i);
      const y = keyOf(b, i);
      if (x.text === y.text) continue;
      if (x.text === '') return 1;
      if (y.text === '') return -1;
      const way = byWords(x, y);
      if (way !== 0) return keys[i]!.descending ? -way : way;
    }
    return 0;
  };
}
