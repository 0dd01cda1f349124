import { CSL_TYPES, type CslType, type NameVariable, type TextVariable } from '../../source';
import type { Dialect } from './names';

/**
 * An entry type. `write` names the dialects in which it is what its CSL type is written as; `genre` and `subtype` are
 * what it says beside the type, as CSL's `genre` and biblatex's `entrysubtype`.
 */
export interface TypeRule {
  bib: string;
  csl: CslType;
  write?: Dialect[];
  genre?: string;
  subtype?: string;
}

const BOTH: Dialect[] = ['bibtex', 'biblatex'];
const TEX: Dialect[] = ['bibtex'];
const LATEX: Dialect[] = ['biblatex'];

/**
 * Entry types; the first line that fits wins, both ways. The fourteen of BibTeX: btxdoc, section 3.1. The others:
 * biblatex manual, sections 2.1.1 (regular), 2.1.2 (aliases) and 2.1.3 (not supported by its styles, but of its data model).
 */
export const TYPE_RULES: TypeRule[] = [
  { bib: 'article', csl: 'article-magazine', subtype: 'magazine', write: LATEX },
  { bib: 'article', csl: 'article-newspaper', subtype: 'newspaper', write: LATEX },
  { bib: 'article', csl: 'article-journal', write: BOTH },
  { bib: 'book', csl: 'book', write: BOTH },
  { bib: 'collection', csl: 'book' },
  { bib: 'incollection', csl: 'chapter', write: BOTH },
  { bib: 'inbook', csl: 'chapter' },
  { bib: 'inproceedings', csl: 'paper-conference', write: BOTH },
  { bib: 'conference', csl: 'paper-conference' },
  { bib: 'phdthesis', csl: 'thesis', write: BOTH, genre: 'Doctoral dissertation' },
  { bib: 'mastersthesis', csl: 'thesis', write: BOTH, genre: 'Master’s thesis' },
  { bib: 'thesis', csl: 'thesis', write: LATEX },
  { bib: 'techreport', csl: 'report', write: TEX },
  { bib: 'report', csl: 'report', write: LATEX },
  { bib: 'booklet', csl: 'pamphlet', write: BOTH },
  { bib: 'manual', csl: 'book' },
  { bib: 'proceedings', csl: 'book' },
  { bib: 'unpublished', csl: 'manuscript', write: BOTH },
  { bib: 'online', csl: 'post-weblog', subtype: 'post-weblog', write: LATEX },
  { bib: 'online', csl: 'post', subtype: 'post', write: LATEX },
  { bib: 'online', csl: 'webpage', write: LATEX },
  { bib: 'www', csl: 'webpage' },
  { bib: 'electronic', csl: 'webpage' },
  { bib: 'dataset', csl: 'dataset', write: LATEX },
  { bib: 'software', csl: 'software', write: LATEX },
  { bib: 'patent', csl: 'patent', write: LATEX },
  { bib: 'inreference', csl: 'entry-dictionary', subtype: 'entry-dictionary', write: LATEX },
  { bib: 'inreference', csl: 'entry-encyclopedia', write: LATEX },
  { bib: 'periodical', csl: 'periodical', write: LATEX },
  { bib: 'movie', csl: 'motion_picture' },
  { bib: 'video', csl: 'motion_picture' },
  { bib: 'audio', csl: 'song' },
  { bib: 'music', csl: 'song' },
  { bib: 'image', csl: 'graphic' },
  { bib: 'artwork', csl: 'graphic' },
  { bib: 'letter', csl: 'personal_communication' },
  { bib: 'legislation', csl: 'legislation' },
  { bib: 'legal', csl: 'treaty' },
  { bib: 'jurisdiction', csl: 'legal_case' },
  { bib: 'performance', csl: 'performance' },
  { bib: 'review', csl: 'review' },
  { bib: 'standard', csl: 'standard' },
  { bib: 'commentary', csl: 'document' },
  { bib: 'bibnote', csl: 'document' },
  { bib: 'bookinbook', csl: 'chapter' },
  { bib: 'suppbook', csl: 'chapter' },
  { bib: 'suppcollection', csl: 'chapter' },
  { bib: 'suppperiodical', csl: 'article-journal' },
  { bib: 'reference', csl: 'book' },
  { bib: 'mvbook', csl: 'book' },
  { bib: 'mvcollection', csl: 'book' },
  { bib: 'mvproceedings', csl: 'book' },
  { bib: 'mvreference', csl: 'book' },
  { bib: 'misc', csl: 'document', write: BOTH },
];

/** Entry type written for CSL types that have none of their own in a dialect. */
export const WRITE_AS: Partial<Record<CslType, string>> = {
  'article-magazine': 'article',
  'article-newspaper': 'article',
  'review-book': 'article',
  review: 'article',
  periodical: 'book',
  'entry-encyclopedia': 'incollection',
  'entry-dictionary': 'incollection',
  entry: 'incollection',
  standard: 'techreport',
  classic: 'book',
};

/** A field that is one CSL text variable, in entries of all CSL types or of some. Rules are tried in order, both ways. */
export interface FieldRule {
  bib: string;
  csl: TextVariable;
  types?: CslType[];
  /** The dialects that write it; every dialect reads it. Both, unless said. */
  write?: Dialect[];
  /** An address or identifier: not TeX. */
  verbatim?: boolean;
  /** Braces in it protect case. */
  titleCase?: boolean;
  /** A list joined by `and` in BibLaTeX (its manual, 2.2.1); to BibTeX it is one text. */
  list?: boolean;
  /** Its values may be localisation keys of biblatex. */
  words?: boolean;
  /** A second value of the same variable is joined to the first by this. */
  join?: string;
}

/** Types that appear in a periodical. */
export const ARTICLES: CslType[] = [
  'article-journal', 'article-magazine', 'article-newspaper', 'review', 'review-book', 'periodical',
]; // prettier-ignore
/** Types that are a part of a book. */
export const INSIDE: CslType[] = [
  'chapter',
  'paper-conference',
  'entry',
  'entry-encyclopedia',
  'entry-dictionary',
];
/** All but whole books, in which `booktitle` is there for the entries that take it over. */
const NOT_BOOKS = CSL_TYPES.filter((type) => type !== 'book');
const NEVER: Dialect[] = [];

/** Types written as @online, @software and @misc, whose entries in biblatex have an organization and no publisher. */
const WITHOUT_PUBLISHER = CSL_TYPES.filter(
  (type) =>
    type === 'webpage' ||
    type.startsWith('post') ||
    type === 'software' ||
    !TYPE_RULES.some((r) => r.csl === type && r.write?.includes('biblatex')) ||
    type === 'document',
);

/** Text fields. BibTeX's: btxdoc, section 3.2; the others: biblatex manual, section 2.2.2, and common practice where marked. */
export const FIELD_RULES: FieldRule[] = [
  { bib: 'title', csl: 'title', titleCase: true },
  { bib: 'shorttitle', csl: 'title-short', titleCase: true },
  { bib: 'journal', csl: 'container-title', types: ARTICLES, titleCase: true, write: TEX },
  { bib: 'journaltitle', csl: 'container-title', types: ARTICLES, titleCase: true, write: LATEX },
  { bib: 'booktitle', csl: 'container-title', types: NOT_BOOKS, titleCase: true },
  { bib: 'shortjournal', csl: 'container-title-short' },
  { bib: 'issuetitle', csl: 'volume-title', types: ARTICLES, titleCase: true },
  { bib: 'volume', csl: 'volume' },
  { bib: 'part', csl: 'part-number' },
  { bib: 'number', csl: 'issue', types: ARTICLES },
  { bib: 'number', csl: 'collection-number', types: ['book', ...INSIDE] },
  { bib: 'number', csl: 'number' },
  { bib: 'issue', csl: 'issue' },
  { bib: 'chapter', csl: 'chapter-number' },
  { bib: 'series', csl: 'collection-title', titleCase: true, words: true },
  { bib: 'edition', csl: 'edition' },
  { bib: 'pages', csl: 'page' },
  { bib: 'eid', csl: 'page', write: NEVER },
  { bib: 'pagetotal', csl: 'number-of-pages' },
  { bib: 'volumes', csl: 'number-of-volumes' },
  { bib: 'school', csl: 'publisher', types: ['thesis'], write: TEX },
  { bib: 'institution', csl: 'publisher', types: ['thesis'], write: LATEX, list: true },
  { bib: 'institution', csl: 'publisher', types: ['report'], list: true },
  { bib: 'organization', csl: 'publisher', types: WITHOUT_PUBLISHER, write: LATEX, list: true },
  { bib: 'publisher', csl: 'publisher', list: true },
  { bib: 'howpublished', csl: 'publisher', write: NEVER },
  { bib: 'school', csl: 'publisher', write: NEVER },
  { bib: 'institution', csl: 'publisher', write: NEVER, list: true },
  { bib: 'organization', csl: 'publisher', write: NEVER, list: true },
  { bib: 'location', csl: 'jurisdiction', types: ['patent'], list: true, words: true },
  { bib: 'address', csl: 'publisher-place', write: TEX, list: true },
  { bib: 'location', csl: 'publisher-place', write: LATEX, list: true },
  { bib: 'origpublisher', csl: 'original-publisher', list: true },
  { bib: 'origlocation', csl: 'original-publisher-place', list: true },
  { bib: 'origtitle', csl: 'original-title', titleCase: true },
  { bib: 'type', csl: 'genre', words: true },
  { bib: 'eventtitle', csl: 'event-title' },
  { bib: 'venue', csl: 'event-place' },
  { bib: 'version', csl: 'version' },
  { bib: 'pubstate', csl: 'status', words: true },
  { bib: 'doi', csl: 'DOI', verbatim: true },
  { bib: 'isbn', csl: 'ISBN' },
  { bib: 'issn', csl: 'ISSN' },
  { bib: 'url', csl: 'URL', verbatim: true },
  // Common practice in exports of catalogues of the life sciences.
  { bib: 'pmid', csl: 'PMID', verbatim: true },
  { bib: 'pmcid', csl: 'PMCID', verbatim: true },
  { bib: 'abstract', csl: 'abstract' },
  { bib: 'note', csl: 'note', join: '. ' },
  { bib: 'addendum', csl: 'note', join: '. ', write: NEVER },
  { bib: 'annotation', csl: 'annote', write: LATEX },
  { bib: 'annote', csl: 'annote', write: TEX },
  { bib: 'language', csl: 'language' },
  { bib: 'library', csl: 'call-number' },
]; // prettier-ignore

/** Fields of creators. */
export const NAME_RULES: { bib: string; csl: NameVariable }[] = [
  { bib: 'author', csl: 'author' },
  { bib: 'editor', csl: 'editor' },
  { bib: 'translator', csl: 'translator' },
  { bib: 'bookauthor', csl: 'container-author' },
];

/** Roles of `editortype`, `editoratype` … (biblatex manual, 2.3.6, and further bibliography strings of its style files). */
export const EDITOR_ROLES: Record<string, NameVariable> = {
  editor: 'editor',
  compiler: 'compiler',
  collaborator: 'contributor',
  organizer: 'organizer',
  director: 'director',
  producer: 'producer',
  illustrator: 'illustrator',
  performer: 'performer',
  composer: 'composer',
  narrator: 'narrator',
  curator: 'curator',
  interviewer: 'interviewer',
  host: 'host',
  guest: 'guest',
  chair: 'chair',
  recipient: 'recipient',
  scriptwriter: 'script-writer',
  serieseditor: 'collection-editor',
  editorialdirector: 'editorial-director',
  seriescreator: 'series-creator',
};

/** Date fields of biblatex and the variables they are. */
export const DATE_RULES = [
  { bib: 'date', csl: 'issued' },
  { bib: 'urldate', csl: 'accessed' },
  { bib: 'origdate', csl: 'original-date' },
  { bib: 'origyear', csl: 'original-date' },
  { bib: 'eventdate', csl: 'event-date' },
] as const;

/** Localisation keys of `type`, `pubstate`, `series` and a patent's `location` (biblatex manual, 4.9.2), in English. */
export const LOCAL_WORDS: Record<string, string> = {
  phdthesis: 'Doctoral dissertation',
  mathesis: 'Master’s thesis',
  mastersthesis: 'Master’s thesis',
  bathesis: 'Bachelor’s thesis',
  candthesis: 'Candidate thesis',
  techreport: 'technical report',
  resreport: 'research report',
  software: 'computer software',
  datacd: 'data CD',
  audiocd: 'audio CD',
  patent: 'patent',
  patentde: 'German patent',
  patenteu: 'European patent',
  patentfr: 'French patent',
  patentuk: 'British patent',
  patentus: 'U.S. patent',
  patreq: 'patent request',
  patreqde: 'German patent request',
  patreqeu: 'European patent request',
  patreqfr: 'French patent request',
  patrequk: 'British patent request',
  patrequs: 'U.S. patent request',
  inpreparation: 'in preparation',
  submitted: 'submitted',
  forthcoming: 'forthcoming',
  inpress: 'in press',
  prepublished: 'pre-published',
  countryde: 'Germany',
  countryeu: 'European Union',
  countryep: 'European Union',
  countryfr: 'France',
  countryuk: 'United Kingdom',
  countryus: 'United States',
  newseries: 'new series',
  oldseries: 'old series',
};

/** Names of languages in `langid` and `language` (biblatex manual, 2.2.3, table 2; babel), to BCP 47. */
export const LANGUAGES: Record<string, string> = {
  english: 'en', american: 'en-US', usenglish: 'en-US', british: 'en-GB', ukenglish: 'en-GB', canadian: 'en-CA', australian: 'en-AU', newzealand: 'en-NZ',
  german: 'de', ngerman: 'de', austrian: 'de-AT', naustrian: 'de-AT', nswissgerman: 'de-CH', swissgerman: 'de-CH', french: 'fr', francais: 'fr',
  canadien: 'fr-CA', acadian: 'fr-CA', italian: 'it', spanish: 'es', catalan: 'ca', galician: 'gl', basque: 'eu', portuguese: 'pt', portuges: 'pt',
  brazilian: 'pt-BR', brazil: 'pt-BR', dutch: 'nl', danish: 'da', swedish: 'sv', norwegian: 'no', norsk: 'nb', nynorsk: 'nn', icelandic: 'is',
  finnish: 'fi', estonian: 'et', latvian: 'lv', lithuanian: 'lt', polish: 'pl', czech: 'cs', slovak: 'sk', slovene: 'sl', slovenian: 'sl', croatian: 'hr',
  serbian: 'sr', bosnian: 'bs', macedonian: 'mk', bulgarian: 'bg', romanian: 'ro', hungarian: 'hu', magyar: 'hu', russian: 'ru', ukrainian: 'uk',
  belarusian: 'be', greek: 'el', turkish: 'tr', hebrew: 'he', arabic: 'ar', persian: 'fa', latin: 'la', irish: 'ga', welsh: 'cy', breton: 'br',
  japanese: 'ja', chinese: 'zh', korean: 'ko', hindi: 'hi', vietnamese: 'vi', thai: 'th', armenian: 'hy', georgian: 'ka', indonesian: 'id',
}; // prettier-ignore

/** The word of a table for a value, where it is the only one that reads back as it. */
export const wordFor = (table: Record<string, string>, value: string): string | undefined =>
  Object.keys(table).find((word) => table[word] === value);

/** Ordinal words of an edition (btxdoc, section 3.2: "an ordinal, such as Second"). */
export const ORDINALS = 'First Second Third Fourth Fifth Sixth Seventh Eighth Ninth Tenth'.split(' ');

/** Prefixes by which an `eprint` has an address (biblatex manual, 3.12.7). */
export const EPRINT_ADDRESSES: Record<string, string> = {
  arxiv: 'https://arxiv.org/abs/',
  jstor: 'https://www.jstor.org/stable/',
  hdl: 'https://hdl.handle.net/',
  googlebooks: 'https://books.google.com/books?id=',
};

const fits = (rule: { types?: CslType[] }, type: CslType) => !rule.types || rule.types.includes(type);

/** Fields that give a variable only when a better one does not: entries that have one are read in the table's order. */
export const SECOND_CHOICES = new Set([
  'issue',
  ...FIELD_RULES.filter((r) => r.write === NEVER).map((r) => r.bib),
]);

interface Placed {
  rule?: FieldRule;
  order: number;
}
const READ = new Map<CslType, Map<string, Placed>>();
const UNKNOWN: Placed = { order: FIELD_RULES.length };

/** The rule by which a field of an entry of a type is read, and its place in the table: of two fields for one variable the earlier wins. */
export function readRuleAt(field: string, type: CslType): Placed {
  let known = READ.get(type);
  if (!known) {
    known = new Map();
    READ.set(type, known);
    for (const [order, rule] of FIELD_RULES.entries())
      if (fits(rule, type) && !known.has(rule.bib)) known.set(rule.bib, { rule, order });
  }
  return known.get(field) ?? UNKNOWN;
}

/** The rule by which a field of an entry of a type is read. */
export const readRule = (field: string, type: CslType): FieldRule | undefined => readRuleAt(field, type).rule;

/** The rule by which a dialect writes a variable in an entry that reads as a type: one that reads it back as itself. */
export const writeRule = (variable: string, type: CslType, dialect: Dialect): FieldRule | undefined =>
  FIELD_RULES.find(
    (rule) =>
      rule.csl === variable &&
      (!rule.write || rule.write.includes(dialect)) &&
      fits(rule, type) &&
      readRule(rule.bib, type) === rule,
  );
