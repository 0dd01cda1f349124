/**
 * The item types of CSL 1.0.2, appendix III.
 * Source: Citation Style Language 1.0.2 specification.
 */
export const CSL_TYPES = [
  'article',
  'article-journal',
  'article-magazine',
  'article-newspaper',
  'bill',
  'book',
  'broadcast',
  'chapter',
  'classic',
  'collection',
  'dataset',
  'document',
  'entry',
  'entry-dictionary',
  'entry-encyclopedia',
  'event',
  'figure',
  'graphic',
  'hearing',
  'interview',
  'legal_case',
  'legislation',
  'manuscript',
  'map',
  'motion_picture',
  'musical_score',
  'pamphlet',
  'paper-conference',
  'patent',
  'performance',
  'periodical',
  'personal_communication',
  'post',
  'post-weblog',
  'regulation',
  'report',
  'review',
  'review-book',
  'software',
  'song',
  'speech',
  'standard',
  'thesis',
  'treaty',
  'webpage',
] as const;
export type CslType = (typeof CSL_TYPES)[number];

/** Name variables of CSL 1.0.2, appendix IV. */
export const NAME_VARIABLES = [
  'author',
  'chair',
  'collection-editor',
  'compiler',
  'composer',
  'container-author',
  'contributor',
  'curator',
  'director',
  'editor',
  'editor-translator',
  'editorial-director',
  'executive-producer',
  'guest',
  'host',
  'illustrator',
  'interviewer',
  'narrator',
  'organizer',
  'original-author',
  'performer',
  'producer',
  'recipient',
  'reviewed-author',
  'script-writer',
  'series-creator',
  'translator',
] as const;
export type NameVariable = (typeof NAME_VARIABLES)[number];

/** Date variables of CSL 1.0.2, appendix IV. */
export const DATE_VARIABLES = [
  'accessed',
  'available-date',
  'event-date',
  'issued',
  'original-date',
  'submitted',
] as const;
export type DateVariable = (typeof DATE_VARIABLES)[number];

/** Number variables of CSL 1.0.2, appendix IV, less those that belong to a citation (locator, citation-number …). */
export const NUMBER_VARIABLES = [
  'chapter-number',
  'collection-number',
  'edition',
  'issue',
  'number',
  'number-of-pages',
  'number-of-volumes',
  'page',
  'page-first',
  'part-number',
  'printing-number',
  'section',
  'supplement-number',
  'version',
  'volume',
] as const;

/** Standard variables of CSL 1.0.2, appendix IV, less those that belong to a citation. */
export const TEXT_VARIABLES = [
  'abstract',
  'annote',
  'archive',
  'archive_collection',
  'archive_location',
  'archive-place',
  'authority',
  'call-number',
  'collection-title',
  'container-title',
  'container-title-short',
  'dimensions',
  'division',
  'DOI',
  'event-place',
  'event-title',
  'genre',
  'ISBN',
  'ISSN',
  'jurisdiction',
  'keyword',
  'language',
  'license',
  'medium',
  'note',
  'original-publisher',
  'original-publisher-place',
  'original-title',
  'part-title',
  'PMCID',
  'PMID',
  'publisher',
  'publisher-place',
  'references',
  'reviewed-genre',
  'reviewed-title',
  'scale',
  'source',
  'status',
  'title',
  'title-short',
  'URL',
  'volume-title',
  'year-suffix',
] as const;

export type TextVariable = (typeof TEXT_VARIABLES)[number] | (typeof NUMBER_VARIABLES)[number];
export type Variable = TextVariable | NameVariable | DateVariable;

const NAMES = new Set<string>(NAME_VARIABLES);
const DATES = new Set<string>(DATE_VARIABLES);
const NUMBERS = new Set<string>(NUMBER_VARIABLES);
const TEXTS = new Set<string>(TEXT_VARIABLES);

/** Whether a variable holds creators. */
export const isNameVariable = (v: string): v is NameVariable => NAMES.has(v);
/** Whether a variable holds a date. */
export const isDateVariable = (v: string): v is DateVariable => DATES.has(v);
/** Whether a variable holds text or a number, which CSL-JSON writes as a string. */
export const isTextVariable = (v: string): v is TextVariable => TEXTS.has(v) || NUMBERS.has(v);
