import type { CslType, NameVariable, TextVariable } from '../../source';

/**
 * Reference types of the RIS format specification (the published list of 2011, from memory), to CSL types; the first
 * that fits is written.
 */
export const TYPE_RULES: [string, CslType][] = [
  ['JOUR', 'article-journal'],
  ['JFULL', 'periodical'],
  ['EJOUR', 'article-journal'],
  ['MGZN', 'article-magazine'],
  ['NEWS', 'article-newspaper'],
  ['BOOK', 'book'],
  ['EBOOK', 'book'],
  ['EDBOOK', 'book'],
  ['CHAP', 'chapter'],
  ['ECHAP', 'chapter'],
  ['CPAPER', 'paper-conference'],
  ['CONF', 'paper-conference'],
  ['THES', 'thesis'],
  ['RPRT', 'report'],
  ['GOVDOC', 'report'],
  ['DATA', 'dataset'],
  ['COMP', 'software'],
  ['ELEC', 'webpage'],
  ['ICOMM', 'post'],
  ['BLOG', 'post-weblog'],
  ['MAP', 'map'],
  ['ART', 'graphic'],
  ['FIGURE', 'figure'],
  ['MPCT', 'motion_picture'],
  ['VIDEO', 'motion_picture'],
  ['SOUND', 'song'],
  ['MUSIC', 'musical_score'],
  ['ADVS', 'broadcast'],
  ['PAMP', 'pamphlet'],
  ['PAT', 'patent'],
  ['PCOMM', 'personal_communication'],
  ['STAND', 'standard'],
  ['STAT', 'legislation'],
  ['CASE', 'legal_case'],
  ['BILL', 'bill'],
  ['HEAR', 'hearing'],
  ['LEGAL', 'regulation'],
  ['ENCYC', 'entry-encyclopedia'],
  ['DICT', 'entry-dictionary'],
  ['MANSCPT', 'manuscript'],
  ['UNPB', 'manuscript'],
  ['UNPD', 'manuscript'],
  ['AGGR', 'collection'],
  ['ANCIENT', 'classic'],
  ['INPR', 'article'],
  ['SLIDE', 'speech'],
  ['INTV', 'interview'],
  ['CLSWK', 'classic'],
  ['CHART', 'figure'],
  ['EQUA', 'figure'],
  ['DBASE', 'dataset'],
  ['ABST', 'article-journal'],
  ['SER', 'periodical'],
  ['STD', 'standard'],
  ['UNBILL', 'bill'],
  ['WEB', 'webpage'],
  ['POD', 'broadcast'],
  ['GEN', 'document'],
  ['PRESS', 'document'],
  ['CTLG', 'document'],
  ['GRNT', 'document'],
  ['MULTI', 'document'],
];

/** A tag that is one text variable. Rules are tried in order, both ways; `read` alone is never written. */
export interface TagRule {
  tag: string;
  csl: TextVariable;
  types?: CslType[];
  read?: boolean;
  /** The tag repeats; values are joined by this. */
  join?: string;
}

/** Types whose container is a periodical. */
export const ARTICLES: CslType[] = [
  'article-journal',
  'article-magazine',
  'article-newspaper',
  'article',
  'periodical',
  'review',
  'review-book',
];
const BOOKS: CslType[] = ['book', 'collection', 'musical_score', 'map'];

export const TAG_RULES: TagRule[] = [
  { tag: 'TI', csl: 'title' },
  { tag: 'T1', csl: 'title', read: true },
  { tag: 'CT', csl: 'title', read: true },
  { tag: 'ST', csl: 'title-short' },
  { tag: 'T2', csl: 'collection-title', types: BOOKS },
  { tag: 'T3', csl: 'collection-title' },
  { tag: 'T2', csl: 'container-title' },
  { tag: 'JO', csl: 'container-title', types: ARTICLES, read: true },
  { tag: 'JF', csl: 'container-title', types: ARTICLES, read: true },
  { tag: 'BT', csl: 'title', types: BOOKS, read: true },
  { tag: 'BT', csl: 'container-title', read: true },
  { tag: 'J2', csl: 'container-title-short' },
  { tag: 'J1', csl: 'container-title-short', read: true },
  { tag: 'TA', csl: 'container-title-short', types: ARTICLES, read: true },
  { tag: 'JA', csl: 'container-title-short', read: true },
  { tag: 'VL', csl: 'volume' },
  { tag: 'IS', csl: 'issue', types: ARTICLES },
  { tag: 'IS', csl: 'number' },
  { tag: 'CP', csl: 'issue', types: ARTICLES, read: true },
  { tag: 'VO', csl: 'volume', read: true },
  { tag: 'SV', csl: 'collection-number' },
  { tag: 'M1', csl: 'number', types: ARTICLES },
  { tag: 'ET', csl: 'edition' },
  { tag: 'NV', csl: 'number-of-volumes' },
  { tag: 'SE', csl: 'section' },
  { tag: 'PB', csl: 'publisher' },
  { tag: 'CY', csl: 'publisher-place' },
  { tag: 'PP', csl: 'publisher-place', read: true },
  { tag: 'M3', csl: 'genre' },
  { tag: 'DO', csl: 'DOI' },
  { tag: 'UR', csl: 'URL' },
  { tag: 'AB', csl: 'abstract' },
  { tag: 'N2', csl: 'abstract', read: true },
  { tag: 'N1', csl: 'note', join: '\n' },
  { tag: 'NO', csl: 'note', join: '\n', read: true },
  { tag: 'RN', csl: 'annote', join: '\n' },
  { tag: 'LA', csl: 'language' },
  { tag: 'AN', csl: 'PMID', read: true },
  { tag: 'CN', csl: 'call-number' },
  { tag: 'DB', csl: 'source' },
  { tag: 'RP', csl: 'status', read: true },
  { tag: 'OP', csl: 'original-publisher', read: true },
  { tag: 'RI', csl: 'reviewed-title', types: ['review', 'review-book'] },
];

export const NAME_RULES: { tag: string; csl: NameVariable; types?: CslType[]; read?: boolean }[] = [
  { tag: 'AU', csl: 'author' },
  { tag: 'A1', csl: 'author', read: true },
  { tag: 'ED', csl: 'editor', read: true },
  { tag: 'A2', csl: 'editor' },
  { tag: 'A3', csl: 'collection-editor' },
  { tag: 'A4', csl: 'translator' },
];

const fits = (rule: TagRule, type: CslType) => !rule.types || rule.types.includes(type);

/** The rule by which a tag of a record of a type is read. */
export const readRule = (tag: string, type: CslType): TagRule | undefined =>
  TAG_RULES.find((rule) => rule.tag === tag && fits(rule, type));

/** The rule by which a variable is written in a record that reads as a type: one that reads it back as itself. */
export const writeRule = (variable: string, type: CslType): TagRule | undefined =>
  TAG_RULES.find(
    (rule) => !rule.read && rule.csl === variable && fits(rule, type) && readRule(rule.tag, type) === rule,
  );
