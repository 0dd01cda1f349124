/** Our processor held against citeproc-js, entry by entry, as text and in formatting. */
import { readFileSync } from 'node:fs';
import { dialectOf, nodesNamed, type Cite } from '../../src/lib/core/csl';
import { locale, style } from './catalogue';
import { theirs, type Printed } from './citeproc';
import { ours } from './ours';
import { citations, works } from './works';

const catalogue = JSON.parse(readFileSync('build/catalogue.json', 'utf8')) as {
  styles: Record<string, { locale?: string }>;
};

/** Every independent style of the catalogue, in order. */
export const allStyles = (): string[] => Object.keys(catalogue.styles).sort();

const WORKS = works();
const CLUSTERS: Cite[][] = citations(WORKS);

export interface Difference {
  /** What the style puts in place of names that repeat. */
  substitute: string | undefined;
  key: string;
  theirs: string;
  ours: string;
}
export interface Compared {
  total: number;
  same: number;
  differences: Difference[];
}

const bare = (text: string) => text.replace(/\{[^}]*\}/g, '');
const MARK = /[.,;:!?]/g;
const withoutMarks = (text: string) => bare(text).replace(/[\s.,;:!?]/g, '');
const marksIn = (text: string) => (bare(text).match(MARK) ?? []).length;
/** Without the number an entry has in the list. */
const unnumbered = (text: string) => bare(text).replace(/^[([]?\d+[\])]?\W*/, '');
/** Without the letters that tell works of a year apart. */
const withoutSuffix = (text: string) => bare(text).replace(/(\d{4}|n\.d\.|s\.d\.)[a-z]{1,2}\b/g, '$1');
/** Without small letters that stand alone, or right before a title, as styles put those that tell works of a year apart. */
const withoutLetters = (text: string) => bare(text).replace(/(?<!\p{L})[a-z]{1,2}(?!\p{Ll}|\p{N})/gu, '');
/** With those letters directly behind the year, wherever they stand. */
const suffixAtYear = (text: string) =>
  bare(text)
    .replace(/(\d{4})年([a-z]{1,2})年?/g, '$1$2')
    .replace(/(\d{4}[a-z]{1,2})年/g, '$1')
    .replace(/(\d{4}|n\.d\.|s\.d\.)[\s.,)\]]*\(?([a-z]{1,2})\b/g, '$1$2')
    .replace(/[\s.,;:()[\]]/g, '');
const unquoted = (text: string) =>
  bare(text)
    .replace(/«\s|\s»/g, '')
    .replace(/[“”‘’"'«»„‚‹›]/g, '');
const wordsOf = (text: string): string[] => bare(text).match(/[\p{L}\p{N}]+/gu) ?? [];
/** Every name of the works, part by part, without its marks. */
const NAME_WORDS = new Set(
  WORKS.flatMap((work) =>
    Object.values(work).flatMap((value) =>
      Array.isArray(value) && typeof value[0] === 'object'
        ? value.flatMap((name: object) =>
            Object.values(name)
              .join(' ')
              .split(/[^\p{L}]+/u),
          )
        : [],
    ),
  ),
);
/** What is in a text before another, which it ends with, marks aside; nothing where it does not. */
const before = (text: string, end: string): string | undefined => {
  const [a, b] = [withoutMarks(text), withoutMarks(end)];
  return a.length > b.length && b !== '' && a.endsWith(b) ? a.slice(0, a.length - b.length) : undefined;
};
/** Whether a text, its marks and blanks left out, is made of names of the works. */
const namesAlone = (text: string) =>
  [...NAME_WORDS].sort((a, b) => b.length - a.length).reduce((rest, name) => (name ? rest.replaceAll(name, '') : rest), text).replace(/[^\p{L}]/gu, '') === ''; // prettier-ignore
/** The words one text has more than another in one place, marks aside; none where they differ in more. */
const more = (long: string, short: string): string => {
  const [a, b] = [wordsOf(long), wordsOf(short)];
  let from = 0;
  while (from < b.length && a[from] === b[from]) from++;
  const to = from + Math.max(0, a.length - b.length);
  return a.slice(to).join() === b.slice(from).join() ? a.slice(from, to).join(' ') : '';
};
/** Words that stand before what a work is a part of, or before a number, in the styles of the catalogue. */
const ALONE = /^(?:in|p in|w|见|no|accessed)$/i;
/** A text of which every word with a capital is its first letter. */
const initials = (text: string) => bare(text).replace(/(\p{Lu})(?:\p{Ll}+|\.)/gu, '$1');
const words = (text: string) => wordsOf(text).sort().join(' ');

/**
 * Classes of differences that are known, each by what is the same in it in spite of the difference, and why we print as we do. The
 * first that fits is meant.
 */
const CLASSES: { name: string; why: string; is(d: Difference): boolean }[] = [
  {
    name: 'marks that meet',
    why: 'of two marks where parts of an entry meet one stays, as the suite’s punctuation_FullMonty has it; the other processor leaves both where one of them comes from farther outside',
    is: ({ theirs, ours }) =>
      withoutMarks(theirs) === withoutMarks(ours) &&
      marksIn(ours) < marksIn(theirs) &&
      !/[.,;:] ?[.,;]$/.test(bare(ours)),
  },
  {
    name: 'end of an entry of one field',
    why: 'with second-field-align and a first field that holds all, the other processor loses the suffix of the layout; CSL 1.0.2, “Whitespace” and “Layout”',
    is: ({ theirs, ours }) => bare(ours).replace(/\.$/, '') === bare(theirs),
  },
  {
    name: 'place of the year’s letter',
    why: 'the letter stands directly behind the year; the other processor puts the affixes of the year between; CSL 1.0.2, “Disambiguation”, method 4',
    is: ({ theirs, ours }) => suffixAtYear(theirs) === suffixAtYear(ours),
  },
  {
    name: 'order: number in the list',
    why: 'sorted by the text of a macro without its looks, its labels and the affixes of names; CSL 1.0.2, “Sorting”',
    is: ({ theirs, ours }) => unnumbered(theirs) === unnumbered(ours),
  },
  {
    name: 'order: the year’s letter',
    why: 'letters follow the order of the list, and are given where names do not tell works apart; CSL 1.0.2, “Disambiguation”, methods 1 and 4, and “Sorting”',
    is: ({ theirs, ours }) => withoutSuffix(theirs) === withoutSuffix(ours),
  },
  {
    name: 'order: works of a citation',
    why: 'works are sorted by names as the style says of their particles; CSL 1.0.2, “demote-non-dropping-particle”',
    is: ({ key, theirs, ours }) => key.startsWith('c') && words(theirs) === words(ours),
  },
  {
    name: 'names that repeat',
    why: 'what stands for names that repeat stands for those of a translator or an editor in the author’s place too; CSL 1.0.2, “Reference Grouping”',
    is: ({ theirs, ours }) => {
      const dash = /^\W*(?:[—–_-]{1,5})/.exec(unnumbered(ours));
      return (
        dash !== null && withoutMarks(theirs).endsWith(withoutMarks(unnumbered(ours).slice(dash[0].length)))
      );
    },
  },
  {
    name: 'names that repeat, an entry without names between',
    why: 'names are compared with those of the entry before, and with no earlier one; CSL 1.0.2, “Reference Grouping”; pandoc prints as we do',
    is: ({ key, theirs, ours }) => {
      const dash = /^\W*(?:[—–_-]{1,6})/.exec(unnumbered(theirs));
      return (
        key.startsWith('list') &&
        dash !== null &&
        withoutMarks(ours).endsWith(withoutMarks(unnumbered(theirs).slice(dash[0].length)))
      );
    },
  },
  {
    name: 'given names in the list',
    why: 'given names that tell works apart are told in citations; in the list they are written as the style says, and pandoc writes them so',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') &&
      withoutMarks(ours).length < withoutMarks(theirs).length &&
      withoutMarks(initials(theirs)) === withoutMarks(initials(ours)),
  },
  {
    name: 'names that repeat, no dash in their place',
    why: 'as “names that repeat”, in a style that puts nothing or something else in their place; pandoc prints as we do',
    is: ({ key, theirs, ours, substitute }) => {
      const rest = unnumbered(ours);
      if (!key.startsWith('list') || substitute === undefined || !rest.startsWith(substitute)) return false;
      const names = before(theirs, rest.slice(substitute.length));
      return names !== undefined && namesAlone(names);
    },
  },
  {
    name: 'a word without what it belongs to',
    why: 'a group whose variables are all empty does not print, nor its words; CSL 1.0.2, “Group”; pandoc prints as we do',
    is: ({ theirs, ours }) => ALONE.test(more(theirs, ours)),
  },
  {
    name: 'an address',
    why: 'the other processor cuts it behind its host where the style puts a mark after it',
    is: ({ theirs, ours }) => /^(?:marsh 3 7|tides|undated)$/.test(more(ours, theirs)),
  },
  {
    name: 'a work without a printed form',
    why: 'one of several works of a citation of which the style prints nothing is told, so that it is not lost',
    is: ({ theirs, ours }) => /^CSL STYLE ERROR/.test(more(ours, theirs)),
  },
  {
    name: 'order: numbers of a citation',
    why: 'works have the numbers of the list, which see',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') &&
      !/\d{4}/.test(bare(ours)) &&
      bare(theirs).replace(/\d+/g, '0') === bare(ours).replace(/\d+/g, '0'),
  },
  {
    name: 'the era of a year',
    why: 'the term for the era is appended to the year, and the affixes of the style come behind it; CSL 1.0.2, “Date-part”; pandoc prints as we do',
    is: ({ theirs, ours }) => bare(theirs).replace(/年(紀元[前後])/, '$1年') === bare(ours),
  },
  {
    name: 'capitals of what a macro prints',
    why: 'the case that a style asks for where it calls a macro holds for all that is printed by it; CSL 1.0.2, “Text-case”',
    is: ({ theirs, ours }) =>
      bare(theirs).toLowerCase() === bare(ours).toLowerCase() && bare(theirs) !== bare(ours),
  },
  {
    name: 'quotation marks in others',
    why: 'inside quotation marks stand the inner ones; CSL 1.0.2, “Quotes”',
    is: ({ theirs, ours }) => bare(theirs) !== bare(ours) && unquoted(theirs) === unquoted(ours),
  },
  {
    name: 'delimiter before “and”',
    why: 'two institutions: the other processor leaves out the delimiter that the style asks for; CSL 1.0.2, “delimiter-precedes-last”',
    is: ({ key, theirs, ours }) =>
      key === 'list odd-42' && withoutMarks(theirs) === withoutMarks(ours).replace('،', ''),
  },
  {
    name: 'a range over two years',
    why: 'the other processor loses, or doubles, what stands between its ends; CSL 1.0.2, “Date Ranges”',
    is: ({ key, ours }) => key === 'list odd-27' && /2004.*[–-].*2005/.test(bare(ours)),
  },
  {
    name: 'a number with a letter behind a hyphen',
    why: '“12-A” is one number: the other processor puts a blank into it',
    is: ({ theirs, ours }) =>
      bare(theirs).replace('12- A', '12-A').replace(/\s/g, '') === bare(ours).replace(/\s/g, '') &&
      /12- A/.test(theirs),
  },
  {
    name: 'order: letters of a citation',
    why: 'the works of a citation stand as they were cited or as the style sorts them, with the letters of the list; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') && words(withoutLetters(theirs)) === words(withoutLetters(ours)),
  },
  {
    name: 'order: number and letters',
    why: 'as “order: number in the list” and “order: the year’s letter”, both at once',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') &&
      withoutMarks(withoutLetters(unnumbered(theirs))) === withoutMarks(withoutLetters(unnumbered(ours))),
  },
];

/** The class of a difference, where it is one that is known. */
export const classOf = (difference: Difference): string | undefined =>
  CLASSES.find((one) => one.is(difference))?.name;

/** A style in its own language or another, over all works; nothing when the other processor leaves entries out or comes to no end. */
export function compare(id: string, lang = catalogue.styles[id]?.locale ?? 'en-US'): Compared | undefined {
  const full = dialectOf(lang);
  const [tree, words] = [style(id), locale(full)];
  let other: Printed | undefined;
  try {
    other = theirs(tree, words, full, WORKS, CLUSTERS);
  } catch {
    return undefined;
  }
  if (!other) return undefined;
  const own = ours(tree, words, full, WORKS, CLUSTERS);
  const substitute = nodesNamed(tree, 'bibliography')[0]?.attrs['subsequent-author-substitute'];
  const differences = [...other].flatMap(([key, text]) =>
    own.get(key) === text ? [] : [{ substitute, key, theirs: text, ours: own.get(key) ?? '' }],
  );
  return { total: other.size, same: other.size - differences.length, differences };
}
