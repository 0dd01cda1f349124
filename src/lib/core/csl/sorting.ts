import { compile } from './compile';
import { elements, type Compiling } from './elements';
import { dateKey } from './dates';
import { dateIn, DATE_VARIABLES, NAME_VARIABLES, NUMBER_VARIABLES } from './item';
import { textOf } from './pieces';
import type { Part, Scope } from './scope';
import type { Tree } from './tree';

/** A key of a style to sort by. CSL 1.0.2, "Sorting". */
export interface SortKey {
  of(scope: Scope): string;
  descending: boolean;
  /** It is the number a work has in the list. */
  isNumber: boolean;
}

export type Compare = (a: string[], b: string[]) => number;

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
            return dateKey(dateIn(scope.item, variable));
          scope.sorting = sorting;
          const node = part(scope);
          scope.sorting = undefined;
          return sortable(textOf(node));
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

/** Words, which compare one by one: a name comes before a longer one that begins with it. */
const wordsOf = (key: string) => key.split(/[\s,;]+/);

/** How keys of a language compare: letter by letter, whatever their case, numbers by their value; what is empty comes last. */
export function comparing(keys: SortKey[], lang: string): Compare {
  const { compare } = new Intl.Collator(lang, {
    sensitivity: 'base',
    ignorePunctuation: true,
    numeric: true,
  });
  const byWords = (x: string, y: string): number => {
    const [p, q] = [wordsOf(x), wordsOf(y)];
    const most = Math.min(p.length, q.length);
    for (let i = 0; i < most; i++) {
      const way = compare(p[i]!, q[i]!);
      if (way !== 0) return way;
    }
    return p.length - q.length;
  };
  return (a, b) => {
    for (let i = 0; i < keys.length; i++) {
      const [x, y] = [a[i]!, b[i]!];
      if (x === y) continue;
      if (x === '') return 1;
      if (y === '') return -1;
      const way = byWords(x, y);
      if (way !== 0) return keys[i]!.descending ? -way : way;
    }
    return 0;
  };
}
