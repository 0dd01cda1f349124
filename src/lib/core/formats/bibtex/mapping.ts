import type { CslType, NameVariable, TextVariable } from '../../source';

/** A BibTeX field that is one CSL text variable, in entries of all types or of some. `verbatim` is not TeX. */
export interface FieldRule {
  bibtex: string;
  csl: TextVariable;
  types?: CslType[];
  verbatim?: boolean;
  titleCase?: boolean;
}

/**
 * Entry types: the first line that fits wins, both ways. Types: btxdoc, section 3.1; those after `unpublished` are of
 * biblatex, read because they are met in .bib files.
 */
export const TYPE_RULES: { bibtex: string; csl: CslType; write?: boolean; genre?: string }[] = [
  { bibtex: 'article', csl: 'article-journal', write: true },
  { bibtex: 'book', csl: 'book', write: true },
  { bibtex: 'incollection', csl: 'chapter', write: true },
  { bibtex: 'inbook', csl: 'chapter' },
  { bibtex: 'inproceedings', csl: 'paper-conference', write: true },
  { bibtex: 'conference', csl: 'paper-conference' },
  { bibtex: 'phdthesis', csl: 'thesis', write: true, genre: 'Doctoral dissertation' },
  { bibtex: 'mastersthesis', csl: 'thesis', write: true, genre: 'Master’s thesis' },
  { bibtex: 'techreport', csl: 'report', write: true },
  { bibtex: 'booklet', csl: 'pamphlet', write: true },
  { bibtex: 'manual', csl: 'report' },
  { bibtex: 'proceedings', csl: 'book' },
  { bibtex: 'unpublished', csl: 'manuscript', write: true },
  { bibtex: 'thesis', csl: 'thesis' },
  { bibtex: 'report', csl: 'report' },
  { bibtex: 'online', csl: 'webpage' },
  { bibtex: 'www', csl: 'webpage' },
  { bibtex: 'electronic', csl: 'webpage' },
  { bibtex: 'collection', csl: 'book' },
  { bibtex: 'mvbook', csl: 'book' },
  { bibtex: 'mvcollection', csl: 'book' },
  { bibtex: 'dataset', csl: 'dataset' },
  { bibtex: 'software', csl: 'software' },
  { bibtex: 'patent', csl: 'patent' },
  { bibtex: 'inreference', csl: 'entry-encyclopedia' },
  { bibtex: 'periodical', csl: 'periodical' },
  { bibtex: 'movie', csl: 'motion_picture' },
  { bibtex: 'misc', csl: 'document', write: true },
];

/** Entry type written for CSL types that have none of their own. */
export const WRITE_AS: Partial<Record<CslType, string>> = {
  'article-magazine': 'article',
  'article-newspaper': 'article',
  'review-book': 'article',
  review: 'article',
  'entry-encyclopedia': 'incollection',
  'entry-dictionary': 'incollection',
};

const ARTICLES: CslType[] = [
  'article-journal', 'article-magazine', 'article-newspaper', 'review', 'review-book', 'article', 'periodical',
]; // prettier-ignore
const INSIDE: CslType[] = ['chapter', 'paper-conference', 'entry', 'entry-encyclopedia', 'entry-dictionary'];

/** Text fields, used both ways; where two rules fit, the first does. */
export const FIELD_RULES: FieldRule[] = [
  { bibtex: 'title', csl: 'title', titleCase: true },
  { bibtex: 'shorttitle', csl: 'title-short', titleCase: true },
  { bibtex: 'journal', csl: 'container-title', types: ARTICLES, titleCase: true },
  { bibtex: 'journaltitle', csl: 'container-title', types: ARTICLES, titleCase: true },
  { bibtex: 'booktitle', csl: 'container-title', types: INSIDE, titleCase: true },
  { bibtex: 'shortjournal', csl: 'container-title-short' },
  { bibtex: 'volume', csl: 'volume' },
  { bibtex: 'number', csl: 'issue', types: ARTICLES },
  { bibtex: 'number', csl: 'collection-number', types: ['book', ...INSIDE] },
  { bibtex: 'number', csl: 'number' },
  { bibtex: 'issue', csl: 'issue' },
  { bibtex: 'chapter', csl: 'chapter-number' },
  { bibtex: 'series', csl: 'collection-title', titleCase: true },
  { bibtex: 'edition', csl: 'edition' },
  { bibtex: 'pages', csl: 'page' },
  { bibtex: 'pagetotal', csl: 'number-of-pages' },
  { bibtex: 'volumes', csl: 'number-of-volumes' },
  { bibtex: 'school', csl: 'publisher', types: ['thesis'] },
  { bibtex: 'institution', csl: 'publisher', types: ['thesis', 'report'] },
  { bibtex: 'organization', csl: 'publisher', types: ['paper-conference', 'report', 'webpage'] },
  { bibtex: 'publisher', csl: 'publisher' },
  { bibtex: 'address', csl: 'publisher-place' },
  { bibtex: 'location', csl: 'publisher-place' },
  { bibtex: 'type', csl: 'genre' },
  { bibtex: 'howpublished', csl: 'medium' },
  { bibtex: 'eventtitle', csl: 'event-title' },
  { bibtex: 'venue', csl: 'event-place' },
  { bibtex: 'version', csl: 'version' },
  { bibtex: 'doi', csl: 'DOI', verbatim: true },
  { bibtex: 'isbn', csl: 'ISBN' },
  { bibtex: 'issn', csl: 'ISSN' },
  { bibtex: 'url', csl: 'URL', verbatim: true },
  { bibtex: 'abstract', csl: 'abstract' },
  { bibtex: 'note', csl: 'note' },
  { bibtex: 'annote', csl: 'annote' },
  { bibtex: 'language', csl: 'language' },
  { bibtex: 'library', csl: 'call-number' },
];

export const NAME_RULES: { bibtex: string; csl: NameVariable }[] = [
  { bibtex: 'author', csl: 'author' },
  { bibtex: 'editor', csl: 'editor' },
  { bibtex: 'translator', csl: 'translator' },
];

const fits = (rule: { types?: CslType[] }, type: CslType) => !rule.types || rule.types.includes(type);

/** The rule by which a field of an entry of a type is read. */
export const readRule = (field: string, type: CslType): FieldRule | undefined =>
  FIELD_RULES.find((rule) => rule.bibtex === field && fits(rule, type));

/** The rule by which a variable is written in an entry that reads as a type: one that reads it back as itself. */
export const writeRule = (variable: string, type: CslType): FieldRule | undefined =>
  FIELD_RULES.find(
    (rule) => rule.csl === variable && fits(rule, type) && readRule(rule.bibtex, type) === rule,
  );
