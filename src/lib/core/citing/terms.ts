import { severalPlaces, type Locator } from '../passages';
import { nodesNamed, type Tree } from '../csl';

/** Words of a language that a list needs beside what its style prints. */
export interface ListTerms {
  /** Quotation marks, opening and closing. */
  quotes: [open: string, close: string];
  /** Short names of locators, by CSL label: for one and for several. */
  locators: Record<string, [one: string, several: string]>;
}

const textIn = (tree: Tree | undefined) => tree?.children.filter((c) => typeof c === 'string').join('') ?? '';

/** The terms of a locale. Source: CSL 1.0.2, "Terms": the short form stands in for the long, and the other way round. */
export function listTerms(locale: Tree): ListTerms {
  const terms = nodesNamed(locale, 'term');
  const quote = (name: string, usual: string) =>
    textIn(terms.find((t) => t.attrs.name === name && !t.attrs.form)) || usual;
  const locators: ListTerms['locators'] = {};
  for (const form of [undefined, 'short'])
    for (const term of terms) {
      if (term.attrs.form !== form || !term.attrs.name) continue;
      const one = textIn(nodesNamed(term, 'single')[0]) || textIn(term);
      const several = textIn(nodesNamed(term, 'multiple')[0]) || one;
      if (one) locators[term.attrs.name] = [one, several];
    }
  return { quotes: [quote('open-quote', '“'), quote('close-quote', '”')], locators };
}

/** A place in a work as a list says it, such as "S. 12–14". */
export function placeIn(terms: ListTerms, { label, value }: Locator): string {
  const [one, several] = terms.locators[label] ?? [label, label];
  return `${severalPlaces(value) ? several : one} ${value}`;
}
