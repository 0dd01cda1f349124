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
/** Its letters and figures, each with its look. */
const letters = (text: string) => {
  let look = '';
  return [...text.matchAll(/\{([^}]*)\}|[\p{L}\p{N}]/gu)]
    .map(([found, to]) => (to === undefined ? `${look}:${found}` : ((look = to), '')))
    .join(' ')
    .replace(/ +/g, ' ');
};
const MARK = /[.,;:!?]/g;
const withoutMarks = (text: string) => bare(text).replace(/[\s.,;:!?]/g, '');
const marksIn = (text: string) => (bare(text).match(MARK) ?? []).length;
/** Without the number an entry has in the list. */
const unnumbered = (text: string) => bare(text).replace(/^[([]?\d+[\])]?[\s.:)]*/, '');
/** Without the letters that tell works of a year apart. */
const withoutSuffix = (text: string) => bare(text).replace(/(\d{4}|n\.d\.|s\.d\.)-?[a-z]{1,2}\b/g, '$1');
/** Without small letters that stand alone, or right before a title, as styles put those that tell works of a year apart. */
const withoutLetters = (text: string) => bare(text).replace(/(?<!\p{L})[a-z]{1,2}(?!\p{Ll}|\p{N})/gu, '');
/** With those letters directly behind the year, wherever they stand. */
const suffixAtYear = (text: string) =>
  bare(text)
    .replace(/(\d{4})年([a-z]{1,2})年?/g, '$1$2')
    .replace(/(\d{4}[a-z]{1,2})年/g, '$1')
    .replace(/(\d{4}|n\.d\.|s\.d\.)[\s.,/)\]-]*\(?([a-z]{1,2})\b/g, '$1$2')
    .replace(/[\s.,;:/()[\]-]/g, '');
/** In small letters, those with a dot of their own as others. */
const small = (text: string) => text.toLowerCase().replace(/\u0307/g, '');
/** A text without capitals, marks and the letters that tell works of a year apart. */
const alike = (text: string) => small(withoutMarks(withoutSuffix(text)));
const withoutSeason = (text: string) =>
  bare(text).replace(/(?:Frühjahr|Spring|printemps|Jar|wiosna)[./, ]*/g, '');
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
/** Whether a text, its marks and blanks left out, is made of names of the works, or of initials. */
const namesAlone = (text: string) =>
  /^\p{Lu}{0,4}$/u.test([...NAME_WORDS].sort((a, b) => b.length - a.length).reduce((rest, name) => (name ? rest.replaceAll(name, '') : rest), text).replace(/[^\p{L}]/gu, '')); // prettier-ignore
const SMALL_NAMES = new Set([...NAME_WORDS].map((name) => name.toLowerCase()));
/** Words that stand between names or for some of them, in the languages of the catalogue. */
const BETWEEN = /^(?:and|und|et|al|u|a|to|og|y|e|i|en|och|dan|dkk|等|others)$/;
/** Whether a word is part of a name, its initials, or stands between names. */
const ofNames = (word: string) =>
  /^\p{Lu}{1,4}$/u.test(word) || SMALL_NAMES.has(word.toLowerCase()) || BETWEEN.test(word);
/** A text without names and the letters that tell works apart. */
const nameless = (text: string) =>
  wordsOf(withoutLetters(text))
    .filter((word) => !ofNames(word))
    .join(' ');
const namesIn = (text: string) =>
  wordsOf(text).filter((word) => SMALL_NAMES.has(word.toLowerCase()) || /^\p{Lu}{1,4}$/u.test(word)).length;
const TITLE_WORDS = new Set(
  WORKS.flatMap((work) =>
    [work['title'], work['title-short']].flatMap((t) =>
      typeof t === 'string' ? wordsOf(t.replace(/<[^>]*>/g, '').toLowerCase()) : [],
    ),
  ),
);
const ofTitles = (word: string) => TITLE_WORDS.has(word.toLowerCase()) || /^\d{4}$/.test(word);
/** The words a text has beside those of another, where it has all of those in their order. */
const beside = (long: string, short: string): string[] | undefined => {
  const rest = wordsOf(withoutLetters(short)).filter((word) => !ofNames(word));
  const others = wordsOf(withoutLetters(long)).filter(
    (word) => !ofNames(word) && !(word === rest[0] && rest.shift()),
  );
  return rest.length ? undefined : others;
};
/** The words one text has more than another in one place, marks aside; none where they differ in more. */
const more = (long: string, short: string): string => {
  const [a, b] = [wordsOf(long), wordsOf(short)];
  let from = 0;
  while (from < b.length && a[from] === b[from]) from++;
  const to = from + Math.max(0, a.length - b.length);
  return a.slice(to).join() === b.slice(from).join() ? a.slice(from, to).join(' ') : '';
};
/** Words that stand before what a work is a part of, or before a number, in the styles of the catalogue. */
const ALONE = /^(?:in|p in|8211 in|w|见|no|accessed|masch|no date|ph d thesis|بدون تاریخ)$/i;
/** A text of which every word with a capital is its first letter. */
const initials = (text: string) => bare(text).replace(/(\p{Lu})(?:\p{Ll}+|\.)/gu, '$1');
const words = (text: string) => wordsOf(text).sort().join(' ');

interface Class {
  name: string;
  why: string;
  is(d: Difference): boolean;
}

/** Classes of differences in looks alone. */
const LOOKS: Class[] = [
  {
    name: 'looks of marks',
    why: 'letters and figures look the same; a mark between two parts has the look of the one or the other, a delimiter of names that of the list',
    is: ({ theirs, ours }) => letters(theirs) === letters(ours),
  },
];

/**
 * Classes of differences that are known, each by what is the same in it in spite of the difference, and why we print as we do. The
 * first that fits is meant.
 */
const CLASSES: Class[] = [
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
    is: ({ theirs, ours }) =>
      (withoutSuffix(ours) !== bare(ours) || /年[a-z]?/.test(ours)) &&
      unquoted(suffixAtYear(theirs)) === unquoted(suffixAtYear(ours)),
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
      return dash !== null && alike(theirs).endsWith(alike(unnumbered(ours).slice(dash[0].length)));
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
        alike(ours).endsWith(alike(unnumbered(theirs).slice(dash[0].length)))
      );
    },
  },
  {
    name: 'given names in the list',
    why: 'given names that tell works apart are told in citations; in the list they are written as the style says, and pandoc writes them so',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') &&
      withoutMarks(ours).length < withoutMarks(theirs).length &&
      withoutMarks(initials(withoutLetters(theirs))) === withoutMarks(initials(withoutLetters(ours))),
  },
  {
    name: 'names that repeat, a word in their place',
    why: 'as “names that repeat, an entry without names between”',
    is: ({ key, theirs, ours, substitute }) => {
      const rest = unnumbered(theirs);
      if (!key.startsWith('list') || !substitute || !rest.startsWith(substitute)) return false;
      const names = before(ours, rest.slice(substitute.length));
      return names !== undefined && namesAlone(names);
    },
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
    is: ({ theirs, ours }) =>
      /^CSL STYLE ERROR/.test(more(ours, theirs)) ||
      (ours.startsWith('[CSL STYLE ERROR') && !wordsOf(theirs).some((w) => ofNames(w) || ofTitles(w))) ||
      (theirs === '[NO_PRINTED_FORM]' && ours === ''),
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
    is: ({ key, theirs, ours }) => {
      if (!/^list odd-3[01]$/.test(key)) return false;
      const plain = (text: string) => bare(text).replace(/[^\p{L}\p{N}]/gu, '');
      return plain(theirs).replace(/年(紀元[前後]|公元前?)/, '$1年') === plain(ours);
    },
  },
  {
    name: 'capitals of what a macro prints',
    why: 'the case that a style asks for where it calls a macro holds for all that is printed by it; CSL 1.0.2, “Text-case”',
    is: ({ theirs, ours }) => {
      const [a, b] = [withoutMarks(unquoted(theirs)), withoutMarks(unquoted(ours))];
      return a !== b && small(a) === small(b) && marksIn(ours) <= marksIn(theirs);
    },
  },
  {
    name: 'quotation marks in others',
    why: 'inside quotation marks stand the inner ones; CSL 1.0.2, “Quotes”',
    is: ({ theirs, ours }) => [unquoted(theirs), `${unquoted(theirs)}.`].includes(unquoted(ours)),
  },
  {
    name: 'delimiter between institutions',
    why: 'two institutions: the other processor leaves out the delimiter that the style asks for, or prints a comma; CSL 1.0.2, “Name”',
    is: ({ key, theirs, ours }) =>
      key === 'list odd-42' && withoutMarks(theirs) === withoutMarks(ours).replace(/[،/–-]/, ''),
  },
  {
    name: 'a range over two years',
    why: 'the other processor loses, or doubles, what stands between its ends; CSL 1.0.2, “Date Ranges”',
    is: ({ key, ours }) => key === 'list odd-27' && /2004.*[–-].*2005/.test(bare(ours)),
  },
  {
    name: 'a range over two months',
    why: 'the other processor puts the word that stands before the date between its ends; CSL 1.0.2, “Date Ranges”',
    is: ({ key, theirs, ours }) =>
      key === 'list odd-26' &&
      withoutMarks(theirs).replace(/\[?(?:cited|Acessoem)(\w+)\]?/, '$1') === withoutMarks(ours),
  },
  {
    name: 'a number with a letter behind a hyphen',
    why: '“12-A” is one number: the other processor puts a blank into it, or a label for several before it; pandoc prints as we do',
    is: ({ theirs, ours }) =>
      /12- ?A/.test(theirs) &&
      /12-A/.test(ours) &&
      (words(theirs) === words(ours) || /^\p{L}+$/u.test(more(theirs, ours))),
  },
  {
    name: 'a number with a comma in it',
    why: 'a label stands before whatever the number is; CSL 1.0.2, “Label”; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key === 'list odd-79' && /123,456/.test(ours) && more(ours, theirs) === 'No',
  },
  {
    name: 'order: letters of a citation',
    why: 'the works of a citation stand as they were cited or as the style sorts them, with the letters of the list; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') &&
      words(withoutLetters(theirs.replace(/(?<=\d{4})[a-z](?=p|chap)/g, ''))) ===
        words(withoutLetters(ours.replace(/(?<=\d{4})[a-z](?=p|chap)/g, ''))),
  },
  {
    name: 'order: number and letters',
    why: 'as “order: number in the list” and “order: the year’s letter”, both at once',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') &&
      withoutMarks(withoutLetters(unnumbered(theirs))) === withoutMarks(withoutLetters(unnumbered(ours))),
  },
  {
    name: 'an editor who translates',
    why: 'editor and translator who are one have one label, and stand once; CSL 1.0.2, “Names”',
    is: ({ key, theirs, ours }) =>
      key === 'list odd-53' &&
      namesIn(theirs) > namesIn(ours) &&
      small(nameless(theirs)) === small(nameless(ours)),
  },
  {
    name: 'ordinals of a style',
    why: 'a style that gives ordinals of its own replaces all of the language; CSL 1.0.2, “Ordinals”; pandoc prints as we do',
    is: ({ theirs, ours }) =>
      withoutMarks(theirs).replace('1reéd', '1èreéd') === withoutMarks(ours) ||
      bare(ours).replace(/(\d)\1(r?e é)/, '$1$2') === bare(theirs),
  },
  {
    name: 'affixes of what stands in for names',
    why: 'the suffix that a style puts behind names that stand in for others prints; pandoc prints as we do',
    is: ({ theirs, ours }) =>
      withoutMarks(withoutSuffix(ours)).replace(/(?<=\))\((?:eds?|tr)\)/, '') ===
      withoutMarks(withoutSuffix(theirs)),
  },
  {
    name: 'a season where a month is asked for as a number',
    why: 'the term of the season takes the place of the month; CSL 1.0.2, “Date-part”',
    is: ({ key, theirs, ours }) => key === 'list odd-24' && withoutSeason(theirs) === withoutSeason(ours),
  },
  {
    name: 'a locator that a style asks for twice',
    why: 'it prints as often as it is asked for; pandoc prints as we do',
    is: ({ key, theirs, ours }) => {
      if (!key.startsWith('c')) return false;
      if (/Ebd\./.test(ours) && bare(ours).replace(/Ebd\., \S+ [\d–]+/g, '') === bare(theirs)) return true;
      const [again, words] = /, ([^,]+)\.$/.exec(bare(ours)) ?? [];
      if (!again) return false;
      return bare(theirs) === `${bare(ours).slice(0, -again.length)}.` && bare(theirs).endsWith(`${words}.`);
    },
  },
  {
    name: 'a citation without its author',
    why: 'the first names of a citation are left out, wherever they stand; CSL 1.0.2 has no rule of it, and the other processor looks at its beginning',
    is: ({ key, theirs, ours }) => key === 'c43' && nameless(theirs) === nameless(ours),
  },
  {
    name: 'a hyphen in a given name, a large letter behind the year',
    why: 'names keep their hyphens, and the case a style asks for holds for the letter of the year too; pandoc prints as we do',
    is: ({ theirs, ours }) => {
      const plain = (text: string) => withoutLetters(text.replace(/(?<=\d)\p{Lu}\b/u, '').replace(/-/g, ' '));
      return bare(theirs) !== bare(ours) && plain(theirs) === plain(ours);
    },
  },
  {
    name: 'a short title alone',
    why: 'what a work is part of prints by its short title where it has no other; pandoc prints as we do',
    is: ({ theirs, ours }) => more(ours, theirs) === 'Marsh Lett',
  },
  {
    name: 'years that are the same',
    why: 'each work of a citation is told, also where a style does not tell works of a year apart; CSL 1.0.2, “Cite Collapsing”',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') && bare(ours).replace(/(\d{4})(?:, \1)+/, '$1') === bare(theirs),
  },
  {
    name: 'an era and no year',
    why: 'the other processor prints what it does not know',
    is: ({ theirs }) => /undefined/.test(theirs),
  },
  {
    name: 'a label that a style asks for twice',
    why: 'it prints as often; pandoc prints as we do',
    is: ({ theirs, ours }) =>
      /eds?\. ed\./.test(ours) && nameless(ours.replace(/(?<=eds?\.) ed\./, '')) === nameless(theirs),
  },
  {
    name: 'names in the list, with an ellipsis',
    why: 'one name that is left out has no ellipsis; CSL 1.0.2, “et-al-use-last”',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') && theirs.includes('…') && nameless(theirs) === nameless(ours),
  },
  {
    name: 'a name in one citation again',
    why: 'it prints with each work, unless the style draws them together; CSL 1.0.2, “Cite Collapsing”; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') &&
      nameless(theirs) === nameless(ours) &&
      namesIn(ours) > namesIn(theirs) &&
      wordsOf(ours).every((word) => wordsOf(theirs).includes(word)),
  },
  {
    name: 'a range whose ends stand together',
    why: 'the style has an empty delimiter between them; pandoc prints as we do',
    is: ({ theirs, ours }) =>
      bare(theirs) !== bare(ours) && bare(theirs).replace(/(\d)–(\d)/, '$1$2') === bare(ours),
  },
  {
    name: 'names that tell none apart',
    why: 'people who made all works that print alike tell none of them apart, shown or with their given names, and stay as the style has them; CSL 1.0.2, “Disambiguation”, methods 1 and 2; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key.startsWith('c') &&
      nameless(theirs) === nameless(ours) &&
      namesIn(theirs) > namesIn(ours) &&
      namesIn(ours) > 0,
  },
  {
    name: 'names that are shown',
    why: 'names are added until they tell works apart, in later mentions too, where styles say least; the other processor stops before; CSL 1.0.2, “Disambiguation”, method 1',
    is: ({ key, theirs, ours }) =>
      (/^list odd-1[4-7]$/.test(key) && nameless(theirs) === nameless(ours)) ||
      (key.startsWith('c') &&
        namesIn(ours) >= namesIn(theirs) &&
        (beside(theirs, ours)?.every(ofTitles) ?? false)),
  },
  {
    name: 'given names in a list of short names',
    why: 'they are told where the citation itself is ambiguous; CSL 1.0.2, “Disambiguation”, by-cite; pandoc prints as we do',
    is: ({ key, theirs, ours }) =>
      key.startsWith('list') &&
      nameless(theirs) === nameless(ours) &&
      /^\p{Lu}(?: \p{Lu})*$/u.test(more(theirs, ours)),
  },
  {
    name: 'later mentions of works of the same people',
    why: 'they are told apart by what the style has for it, whatever the number of the note: more than one of them may be first mentioned there; CSL 1.0.2, “Disambiguation”, method 3, and the suite’s bugreports_EnvAndUrb',
    is: ({ key, theirs, ours }) => key.startsWith('c') && (beside(ours, theirs)?.every(ofTitles) ?? false),
  },
];

/** The class of a difference, where it is one that is known. */
export const classOf = (difference: Difference): string | undefined =>
  (bare(difference.theirs) === bare(difference.ours) ? LOOKS : CLASSES).find((one) => one.is(difference))
    ?.name;

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
