import CSL, { type Engine } from 'citeproc';
import { DATE_VARIABLES, type CslItem } from '../source';
import type { Tree } from './tree';

/** Languages whose cases are not those of the rest. Source: Unicode Character Database, SpecialCasing; and Greek capitals, which drop their accents. */
const OWN_CASES = /^(?:tr|az|lt|el)\b/i;

/** Text in which the processor's search for quotation marks and tags can find none: it would be read and left as it is. */
const PLAIN = /^[\p{L}\p{N} .:()/&–-]*$/u;

/** How the processor compares sort keys. */
const COLLATION: Intl.CollatorOptions = { sensitivity: 'base', ignorePunctuation: true, numeric: true };

let shortened = false;

/**
 * Takes the processor's ways through letter case and sorting the short way. It hands every word a list of languages,
 * which costs more than the rest of setting the word, and has a collator made for every comparison.
 */
function shortenWords(): void {
  if (shortened) return;
  shortened = true;
  const { toLocaleLowerCase, toLocaleUpperCase, getSortCompare } = CSL;
  const common = (engine: Engine) => {
    const language = engine.tmp.lang_array?.[0];
    return language !== undefined && !OWN_CASES.test(language);
  };
  CSL.toLocaleLowerCase = function (text) {
    return common(this) ? text.toLowerCase() : toLocaleLowerCase.call(this, text);
  };
  CSL.toLocaleUpperCase = function (text) {
    return common(this) ? text.toUpperCase() : toLocaleUpperCase.call(this, text);
  };
  CSL.getSortCompare = function (locale) {
    const { compare } = new Intl.Collator(locale || 'en-US', COLLATION);
    // Where punctuation counts, the processor looks behind brackets and quotation marks.
    if (compare('[x', 'x') !== 0) return getSortCompare.call(this, locale);
    const folded = (text: string) => CSL.toLocaleLowerCase.call(this, text);
    return (a, b) => compare(folded(a), folded(b));
  };
}

/** Leaves plain text out of the processor's search for marks, which builds an expression anew for each piece of text. */
function shortenMarks(engine: Engine): void {
  const { flipflopper } = engine.fun;
  const own = ['open-quote', 'close-quote', 'open-inner-quote', 'close-inner-quote'].map((term) =>
    engine.getTerm(term),
  );
  // A style may take a dash for its quotation mark.
  if (own.some((mark) => mark && PLAIN.test(mark))) return;
  const inFull = flipflopper.processTags.bind(flipflopper);
  flipflopper.processTags = (blob) => {
    if (!PLAIN.test(blob.blobs)) inFull(blob);
  };
}

/** What a processor asks for: items by its ids, locales by language. */
export interface Shelf {
  itemOf(id: string): CslItem | undefined;
  localeOf(lang: string): Tree;
  /** Abbreviations of a kind, such as `container-title`, by the full value. */
  abbreviation?(kind: string, value: string): string | undefined;
}

/**
 * An item whose ranges of dates have both ends told equally far: the processor prints no other, and one such record would
 * keep a whole list from being printed. `2004-06/2006` prints as 2004–2006.
 */
function withEvenRanges(item: CslItem | undefined): CslItem | undefined {
  let even = item;
  for (const variable of DATE_VARIABLES) {
    const date = item?.[variable];
    const [from, to] = date?.['date-parts'] ?? [];
    if (!from || !to || from.length === to.length) continue;
    const length = Math.min(from.length, to.length);
    even = { ...even!, [variable]: { ...date, 'date-parts': [from.slice(0, length), to.slice(0, length)] } };
  }
  return even;
}

/**
 * Opens a processor that prints in a language, whatever the style's own is. `marked` has its output say of each part
 * which variables it was printed from; that is for references only, since in a citation of several works it would keep
 * the processor from joining "1982a" and "1982b" as the style asks. Throws an Error in the processor's words when the
 * style cannot be used.
 */
export function openEngine(style: Tree, shelf: Shelf, lang: string, marked: boolean): Engine {
  shortenWords();
  const engine = new CSL.Engine(
    {
      retrieveLocale: (wanted: string) => shelf.localeOf(wanted),
      retrieveItem: (id: string) => ({ ...withEvenRanges(shelf.itemOf(id)), id }),
      ...(shelf.abbreviation
        ? {
            getAbbreviation: (
              _list: string,
              found: Record<string, Record<string, Record<string, string>>>,
              jurisdiction: string,
              kind: string,
              value: string,
            ) => {
              const short = shelf.abbreviation!(kind, value);
              ((found[jurisdiction] ??= {})[kind] ??= {})[value] ??= short ?? '';
            },
          }
        : {}),
      ...(marked
        ? {
            variableWrapper: (
              { variableNames }: { variableNames: string[] },
              before: string,
              text: string,
              after: string,
            ) => `${before}<span data-variables="${variableNames.join(' ')}">${text}</span>${after}`,
          }
        : {}),
    },
    // The processor writes into the tree it is given.
    structuredClone(style),
    lang,
    true,
  );
  engine.opt.development_extensions.wrap_url_and_doi = false;
  shortenMarks(engine);
  return engine;
}
