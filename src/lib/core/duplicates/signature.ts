import anyAscii from 'any-ascii';
import {
  creatorsOf,
  doiKey,
  addressKey,
  findArxiv,
  findPmid,
  isbnKeys,
  looksInstitutional,
  parseName,
  yearOf,
  type CslName,
  type SourceRecord,
} from '../source';
import { fold, plain } from '../text';

/** What the kinds of source have in common when records are compared. */
export type Family =
  | 'article'
  | 'paper'
  | 'chapter'
  | 'book'
  | 'thesis'
  | 'report'
  | 'news'
  | 'data'
  | 'preprint'
  | 'review'
  | 'page';

/** A title, taken apart for comparing. Every text is in Latin letters, lower case, without marks. */
export interface TitleSign {
  /** All of it, without what stands in brackets behind it and without a notice before it. */
  whole: string;
  /** The whole without its blanks: one put in the wrong place parts words that are one. */
  joined: string;
  /** What stands before the subtitle; the whole where there is none. */
  main: string;
  /** The words of the whole that tell something. */
  words: string[];
  /** Its numbers in order: years, parts, volumes; Roman ones as digits where a word like "Part" is before them. */
  numbers: string[];
  /** The numbers of parts among them. */
  parts: string[];
  /** A translation of it that stands in brackets behind it. */
  translated: string;
  /** What it says of another work: a correction, a review, a reply. */
  notice: 'correction' | 'review' | 'reply' | null;
}

/** A person or institution, for comparing. */
export interface PersonSign {
  family: string;
  /** Given names or initials, in order. */
  given: string[];
  /** All words of the name, for names whose parts stand in another order, and for institutions. */
  words: string[];
  institution: boolean;
}

/** What a record is compared by: derived once, and small enough to be kept for every record of a large library. */
export interface Signature {
  family: Family;
  title: TitleSign;
  /** Creators in the role that stands first, and those of the first editors where they are others. */
  people: PersonSign[];
  editors: PersonSign[];
  /** The first creators are authors of it, not its editors. */
  authored: boolean;
  year: number | null;
  /** Year, month and day, where all are said. */
  day: string | null;
  container: string;
  containerWords: string[];
  issn: string;
  volume: string;
  issue: string;
  firstPage: string;
  lastPage: string;
  edition: string;
  number: string;
  part: string;
  publisher: string[];
  doi: string;
  isbns: string[];
  address: string;
  pmid: string;
  arxiv: string;
  language: string;
  original: string;
  translated: boolean;
}

const FAMILIES: Partial<Record<SourceRecord['type'], Family>> = {
  'article-journal': 'article',
  'article-magazine': 'article',
  'article-newspaper': 'news',
  article: 'preprint',
  'paper-conference': 'paper',
  chapter: 'chapter',
  entry: 'chapter',
  'entry-dictionary': 'chapter',
  'entry-encyclopedia': 'chapter',
  book: 'book',
  collection: 'book',
  thesis: 'thesis',
  report: 'report',
  standard: 'report',
  dataset: 'data',
  review: 'review',
  'review-book': 'review',
};

/** Words that tell nothing apart, in the languages most records are in. */
const EMPTY = new Set(
  'the a an of and in on for to from with by at as is are its their or into der die das den dem des und ein eine im von vom zu zur zum fur auf mit aus bei als le la les l un une du de d et dans sur au aux en par pour el los las y e o del da do dos das i v na po w z il lo gli di della delle'.split(
    ' ',
  ),
);

const ASCII = /^[\x20-\x7e]*$/;
/** What `fold` gives for ASCII, in a fifth of the time. */
const folded = (text: string) =>
  text
    .toLowerCase()
    .replace(/'/g, '')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();
const romanised = (text: string) => (ASCII.test(text) ? text : fold(anyAscii(text)));

/** Text in Latin letters (other scripts letter by letter), lower case, no marks. */
export function romanise(text: string): string {
  const short = text.length > LONGEST ? text.slice(0, LONGEST) : text;
  return ASCII.test(short) ? folded(short) : romanised(fold(short));
}

/**
 * Text for comparing across scripts and habits of spelling: Latin letters (other scripts letter by letter), lower case, no
 * marks; `ae`, `oe`, `ue` as the vowel they stand for and `y`, `j` as `i`, since romanisations differ in them.
 */
export function latin(text: string): string {
  return romanise(text)
    .replace(/([aou])e/g, '$1')
    .replace(/[yj]/g, 'i')
    .replace(/ii+/g, 'i')
    .replace(/kh/g, 'h');
}

/** The words of a text in comparison form that tell something. */
export const telling = (text: string): string[] =>
  text.split(' ').filter((word) => word !== '' && !EMPTY.has(word));

const ROMAN: Record<string, string> = {
  i: '1',
  ii: '2',
  iii: '3',
  iv: '4',
  v: '5',
  vi: '6',
  vii: '7',
  viii: '8',
  ix: '9',
  x: '10',
};
const PART =
  /\b(?:part|pt|teil|partie|parte|band|bd|tome|vol|volume|book|no|nr|chapter|stage|phase|paper|часть|том)\.?\s+(\d{1,3}|[ivx]{1,4})\b/giu;
const NOTICES: [TitleSign['notice'] & string, RegExp][] = [
  [
    'correction',
    /^\W*(?:(?:publisher|author)s?\W{0,2}\s+)?(?:erratum|errata|corrigendum|corrigenda|correction|addendum|retraction|berichtigung|expression of concern)(?:\s+(?:to|for|of|zu))?\s*[:.\-–—]?\s*/iu,
  ],
  [
    'review',
    /^\W*(?:book review|review|rezension|besprechung|compte rendu|reseña|recensione)(?:\s+(?:of|von|zu|de))?\s*[:.\-–—]\s*|^\W*review of\s+/iu,
  ],
  [
    'reply',
    /^\W*(?:a\s+)?(?:reply|response|rejoinder|comments?|commentary|discussion|antwort)\s+(?:to|on|of|auf|zu)\b\s*[:.\-–—]?\s*/iu,
  ],
];

/** Longest text that is compared, in characters; what is behind it tells nothing more. */
const LONGEST = 600;

/** Takes a title apart. */
export function titleSign(given: string): TitleSign {
  let text = plain(given).slice(0, LONGEST);
  // What a page adds to its name.
  const bar = text.indexOf(' | ');
  if (bar > 0) text = text.slice(0, bar);
  let translated = '';
  const bracket = text.endsWith(']') ? text.lastIndexOf('[') : -1;
  if (bracket > 0) {
    translated = latin(text.slice(bracket));
    text = text.slice(0, bracket);
  }
  let notice: TitleSign['notice'] = null;
  for (const [kind, pattern] of NOTICES) {
    const found = pattern.exec(text);
    if (!found || found[0].length === text.length) continue;
    notice = kind;
    text = text.slice(found[0].length);
    break;
  }
  const parts = [...text.matchAll(PART)].map((m) => ROMAN[m[1]!.toLowerCase()] ?? m[1]!);
  const cut = text.search(/\s?[:;]\s|\s[–—-]\s|\.\s(?=\p{Lu}\p{Ll}{3})|\?\s(?=\S)/u);
  const whole = latin(text);
  const end = /\s(\d{1,3}|[IVX]{1,4})\W*$/u.exec(text)?.[1];
  const trailing = end && (ROMAN[end.toLowerCase()] ?? end);
  const plainNumbers = whole.match(/\d+/g) ?? [];
  const numbers = [...new Set([...plainNumbers, ...parts, ...(trailing ? [trailing] : [])])];
  return {
    whole,
    joined: whole.replace(/ /g, ''),
    main: cut > 3 ? latin(text.slice(0, cut)) : whole,
    words: telling(whole),
    numbers,
    parts: [...new Set([...parts, ...(trailing ? [trailing] : [])])],
    translated,
    notice,
  };
}

/** How many names are remembered: those who write much are in many records. */
const MOST_NAMES = 5_000;
const names = new Map<string, PersonSign>();

/** A name for comparing. One that is given as one string is taken apart, an institution kept whole. */
export function personSign(name: CslName): PersonSign {
  const { family, given, literal } = name;
  const key = `${family ?? ''}\n${given ?? ''}\n${literal ?? ''}`;
  const known = names.get(key);
  if (known) return known;
  const made = takenApart(name);
  if (key.length <= REMEMBERED.length) names.set(key, made);
  if (names.size > MOST_NAMES) names.delete(names.keys().next().value!);
  return made;
}

function takenApart(name: CslName): PersonSign {
  const institution = name.literal !== undefined && looksInstitutional(name.literal);
  const read = name.literal !== undefined && !institution ? (parseName(name.literal) ?? name) : name;
  const family = latin(read.family ?? read.literal ?? read.given ?? '');
  const given = read.family
    ? latin((read.given ?? '').replace(/(\p{Lu})(?=\p{Lu}\b)/gu, '$1 ').replace(/[.-]/g, ' '))
        .split(' ')
        .filter(Boolean)
    : [];
  return {
    family,
    given,
    words: institution ? telling(family) : [...family.split(' '), ...given].filter(Boolean),
    institution,
  };
}

/** The number in a field such as `3rd ed.`, or its words where it has none. */
const numberOf = (value: unknown): string => {
  if (value === undefined) return '';
  const text = String(value).slice(0, 60);
  return /\d+/.exec(text)?.[0].replace(/^0+(?=\d)/, '') ?? ROMAN[text.trim().toLowerCase()] ?? fold(text);
};

const ORDINALS: Record<string, string> = Object.fromEntries(
  'first 1 second 2 third 3 fourth 4 fifth 5 sixth 6 seventh 7 eighth 8 ninth 9 tenth 10 zweite 2 dritte 3 deuxieme 2 troisieme 3 segunda 2 tercera 3'
    .split(' ')
    .reduce<[string, string][]>(
      (pairs, word, i, all) => (i % 2 ? pairs : [...pairs, [word, all[i + 1]!]]),
      [],
    ),
);
const editionOf = (value: unknown): string => {
  const number = numberOf(value);
  return /^\d+$/.test(number)
    ? number
    : (number
        .split(' ')
        .map((w) => ORDINALS[w])
        .find(Boolean) ?? number);
};

/** First and last page; a shortened end (`123-45`) is completed, a locator of letters and digits stays whole. */
export function pagesOf(record: SourceRecord): [first: string, last: string] {
  const text = fold(String(record['page-first'] ?? record.page ?? '').slice(0, 60)).replace(
    /^(?:pp?|s|seite|art|article) /,
    '',
  );
  const [first = '', second = ''] = text.split(' ');
  const bare = (page: string) => page.replace(/^([a-z]*)0+(?=\d)/, '$1');
  if (record['page-first'] !== undefined) return [bare(first), ''];
  const end =
    /^\d+$/.test(first) && /^\d+$/.test(second) && second.length < first.length
      ? first.slice(0, first.length - second.length) + second
      : second;
  return [bare(first), bare(end)];
}

const PREPRINT = /\b(?:preprint|working paper|eprint|arxiv|discussion paper|manuscript)\b/i;
const THESIS = /\b(?:thesis|dissertation|habilitation)\b/i;

function familyOf(record: SourceRecord): Family {
  if (record.genre && PREPRINT.test(record.genre) && record.type !== 'thesis') return 'preprint';
  const container = record['container-title'] ?? record.publisher ?? '';
  if (/\b(?:\w{2,4}rxiv)\b/i.test(container)) return 'preprint';
  if (record.type === 'article')
    return record.volume || record.page || (record['container-title'] && !record.DOI?.includes('arXiv'))
      ? 'article'
      : 'preprint';
  if (record.genre && THESIS.test(record.genre)) return 'thesis';
  return FAMILIES[record.type] ?? 'page';
}

/** How many containers and publishers are remembered, and how long they are at most: a few of them have most of the records. */
const REMEMBERED = { most: 2_000, length: 200 };
const remembered = new Map<string, [whole: string, words: string[]]>();

/** A text in Latin letters, and its telling words. */
function inLatin(text: string): [whole: string, words: string[]] {
  const known = remembered.get(text);
  if (known) return known;
  const whole = latin(text);
  const made: [string, string[]] = [whole, telling(whole)];
  if (text.length <= REMEMBERED.length) remembered.set(text, made);
  if (remembered.size > REMEMBERED.most) remembered.delete(remembered.keys().next().value!);
  return made;
}

/** What a record is compared by. Pure: the same record gives the same. */
export function signatureOf(record: SourceRecord): Signature {
  const roles = creatorsOf(record);
  const [where, inside] = inLatin(record['container-title'] ?? '');
  const parts = record.issued?.['date-parts']?.[0];
  const [firstPage, lastPage] = pagesOf(record);
  const ids = [record.URL, record.note, record.number, record.DOI].filter(Boolean).join(' ');
  return {
    family: familyOf(record),
    title: titleSign(record.title ?? ''),
    people: (roles[0]?.names ?? []).slice(0, 40).map(personSign),
    authored: (record.author?.length ?? 0) > 0,
    editors: (record.editor ?? []).slice(0, 10).map(personSign),
    year: yearOf(record.issued) ?? null,
    day: parts?.length === 3 ? parts.join('-') : null,
    container: where,
    containerWords: inside,
    issn: (record.ISSN ?? '')
      .replace(/[^\dXx]/g, '')
      .toUpperCase()
      .slice(0, 8),
    volume: numberOf(record.volume),
    issue: numberOf(record.issue),
    firstPage,
    lastPage,
    edition: editionOf(record.edition),
    number: fold(String(record.number ?? '').slice(0, 60)),
    part: numberOf(record['part-number'] ?? record['chapter-number']),
    publisher: inLatin(record.publisher ?? '')[1],
    doi: doiKey(record.DOI) ?? '',
    isbns: isbnKeys(record.ISBN),
    address: addressKey(record.URL) ?? '',
    pmid: record.PMID ?? findPmid(ids) ?? '',
    arxiv: findArxiv(ids) ?? /10\.48550\/arxiv\.(\S+)/i.exec(record.DOI ?? '')?.[1] ?? '',
    language: (record.language ?? '').slice(0, 2).toLowerCase(),
    original: latin(record['original-title'] ?? ''),
    translated: (record.translator?.length ?? 0) > 0,
  };
}
