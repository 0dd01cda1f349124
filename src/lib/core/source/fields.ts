import {
  DATE_VARIABLES,
  NAME_VARIABLES,
  NUMBER_VARIABLES,
  TEXT_VARIABLES,
  type CslType,
  type NameVariable,
  type Variable,
} from './variables';
import type { SourceRecord } from './schema';

/** The groups of the source sheet, in order. */
export const GROUPS = ['What', 'Who', 'Where it appeared', 'When', 'Identifiers', 'More'] as const;
export type Group = (typeof GROUPS)[number];

/** How the interface names the types. */
export const TYPE_LABELS: Record<CslType, string> = {
  article: 'Preprint or article',
  'article-journal': 'Journal article',
  'article-magazine': 'Magazine article',
  'article-newspaper': 'Newspaper article',
  bill: 'Bill',
  book: 'Book',
  broadcast: 'Broadcast',
  chapter: 'Chapter',
  classic: 'Classical work',
  collection: 'Archival collection',
  dataset: 'Dataset',
  document: 'Document',
  entry: 'Entry',
  'entry-dictionary': 'Dictionary entry',
  'entry-encyclopedia': 'Encyclopedia entry',
  event: 'Event',
  figure: 'Figure',
  graphic: 'Graphic or photograph',
  hearing: 'Hearing',
  interview: 'Interview',
  legal_case: 'Legal case',
  legislation: 'Legislation',
  manuscript: 'Manuscript',
  map: 'Map',
  motion_picture: 'Film',
  musical_score: 'Musical score',
  pamphlet: 'Pamphlet',
  'paper-conference': 'Conference paper',
  patent: 'Patent',
  performance: 'Performance',
  periodical: 'Periodical',
  personal_communication: 'Personal communication',
  post: 'Post',
  'post-weblog': 'Blog post',
  regulation: 'Regulation',
  report: 'Report',
  review: 'Review',
  'review-book': 'Book review',
  software: 'Software',
  song: 'Song or recording',
  speech: 'Speech or talk',
  standard: 'Standard',
  thesis: 'Thesis',
  treaty: 'Treaty',
  webpage: 'Web page',
};

const LABELS: Partial<Record<Variable, string>> = {
  DOI: 'DOI',
  ISBN: 'ISBN',
  ISSN: 'ISSN',
  PMID: 'PubMed ID',
  PMCID: 'PubMed Central ID',
  URL: 'Address',
  accessed: 'Accessed',
  issued: 'Date',
  page: 'Pages',
  'number-of-pages': 'Length in pages',
  'container-title': 'Appeared in',
  'container-title-short': 'Appeared in, short',
  'title-short': 'Short title',
  'collection-title': 'Series',
  'collection-number': 'Number in series',
  'collection-editor': 'Series editors',
  'publisher-place': 'Place',
  archive_location: 'Place in archive',
  archive_collection: 'Archive collection',
  'archive-place': 'Place of archive',
  'call-number': 'Call number',
  'event-title': 'Event',
  'event-place': 'Place of event',
  'event-date': 'Date of event',
  'original-date': 'First published',
  'original-title': 'Original title',
  'original-publisher': 'First publisher',
  'original-publisher-place': 'Place first published',
  'original-author': 'Original authors',
  'available-date': 'Available since',
  'reviewed-title': 'Title reviewed',
  'reviewed-author': 'Authors reviewed',
  'reviewed-genre': 'Kind reviewed',
  genre: 'Kind of work',
  keyword: 'Keywords',
  source: 'Found in',
  annote: 'Annotation',
  'container-author': 'Authors of the whole',
  'editor-translator': 'Editors and translators',
};

/** How the interface names a variable. Creators are named in the plural: `Authors`. */
export function fieldLabel(variable: string): string {
  if (variable === 'custom') return 'Titles in other languages, custom values';
  if (Object.hasOwn(LABELS, variable)) return LABELS[variable as Variable]!;
  const words = variable.replace(/[-_]/g, ' ');
  const plural = (NAME_VARIABLES as readonly string[]).includes(variable) ? `${words}s` : words;
  return plural.charAt(0).toUpperCase() + plural.slice(1);
}

const IDENTIFIERS = new Set<string>(['DOI', 'ISBN', 'ISSN', 'PMID', 'PMCID', 'URL', 'call-number']);
const WHERE = new Set<string>([
  'container-title', 'container-title-short', 'collection-title', 'collection-number', 'volume', 'volume-title', 'issue',
  'supplement-number', 'page', 'page-first', 'chapter-number', 'part-number', 'part-title', 'section', 'publisher',
  'publisher-place', 'original-publisher', 'original-publisher-place', 'event-title', 'event-place', 'archive',
  'archive_collection', 'archive_location', 'archive-place', 'authority', 'jurisdiction', 'division', 'source',
]); // prettier-ignore
const WHAT = new Set<string>([
  'title', 'title-short', 'original-title', 'genre', 'medium', 'edition', 'version', 'number', 'number-of-pages',
  'number-of-volumes', 'printing-number', 'language', 'abstract', 'reviewed-title', 'reviewed-genre', 'scale', 'dimensions',
  'status',
]); // prettier-ignore

/** A variable's name inside a sentence: `appeared in`, but `DOI`. */
export function fieldName(variable: string): string {
  const label = variable === 'type' ? 'Kind of source' : fieldLabel(variable);
  return /^\p{Lu}{2}/u.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);
}

/** The group a variable is shown in. */
export function groupOf(variable: string): Group {
  if ((NAME_VARIABLES as readonly string[]).includes(variable)) return 'Who';
  if ((DATE_VARIABLES as readonly string[]).includes(variable)) return 'When';
  if (IDENTIFIERS.has(variable)) return 'Identifiers';
  if (WHERE.has(variable)) return 'Where it appeared';
  return WHAT.has(variable) ? 'What' : 'More';
}

const ALL: Variable[] = [...TEXT_VARIABLES, ...NUMBER_VARIABLES, ...NAME_VARIABLES, ...DATE_VARIABLES];

const v = (list: string) => list.split(' ') as Variable[];
const ONLINE = v('issued accessed URL language abstract');
const ASKED: Partial<Record<CslType, Variable[]>> = {
  article: v('title author container-title number publisher genre DOI'),
  'article-journal': v('title author container-title volume issue page DOI ISSN'),
  'article-magazine': v('title author container-title volume issue page ISSN'),
  'article-newspaper': v('title author container-title publisher-place section page edition ISSN'),
  book: v(
    'title author editor translator edition volume number-of-volumes collection-title collection-number publisher publisher-place ISBN DOI original-date',
  ),
  chapter: v(
    'title author container-title editor translator edition volume collection-title page chapter-number publisher publisher-place ISBN DOI',
  ),
  'paper-conference': v(
    'title author container-title editor event-title event-place page collection-title publisher publisher-place DOI ISBN',
  ),
  thesis: v('title author genre publisher publisher-place archive number DOI'),
  report: v('title author genre number collection-title publisher publisher-place page DOI'),
  dataset: v('title author version publisher archive medium DOI'),
  software: v('title author version publisher genre DOI'),
  map: v('title author genre scale edition publisher publisher-place archive call-number'),
  graphic: v('title author medium genre dimensions publisher archive archive_location'),
  figure: v('title author medium container-title page'),
  motion_picture: v('title director script-writer producer genre medium publisher publisher-place'),
  broadcast: v('title director host container-title number publisher publisher-place medium'),
  song: v('title composer performer container-title publisher medium'),
  interview: v('title author interviewer container-title medium publisher'),
  manuscript: v('title author genre archive archive_collection archive_location archive-place call-number'),
  collection: v('title author archive archive_location archive-place publisher'),
  personal_communication: v('title author recipient genre medium'),
  speech: v('title author event-title event-place genre publisher'),
  patent: v('title author number authority jurisdiction status submitted publisher'),
  standard: v('title author number authority publisher publisher-place version'),
  legislation: v('title authority jurisdiction number section container-title volume page'),
  legal_case: v('title authority jurisdiction number container-title volume page'),
  bill: v('title authority jurisdiction number section container-title'),
  'entry-encyclopedia': v(
    'title author container-title editor edition volume page publisher publisher-place DOI',
  ),
  'entry-dictionary': v('title author container-title editor edition volume page publisher publisher-place'),
  'review-book': v('title author reviewed-title reviewed-author container-title volume issue page DOI'),
  review: v('title author reviewed-title reviewed-genre container-title volume issue page DOI'),
  'post-weblog': v('title author container-title publisher'),
  post: v('title author container-title publisher genre'),
  webpage: v('title author container-title publisher'),
  periodical: v('title editor volume issue publisher publisher-place ISSN'),
};
const DEFAULT_ASKED = v('title author container-title publisher publisher-place number page DOI');

/** The variables a type asks for, in the order a person would fill them; common practice. */
export function askedFields(type: CslType): Variable[] {
  return [...new Set([...(ASKED[type] ?? DEFAULT_ASKED), ...ONLINE])];
}

/** The variables a type asks for, those that the citing style prints (`printed`, in its order) before the others. */
export function askedInOrder(type: CslType, printed: Variable[]): Variable[] {
  const asked = askedFields(type);
  return [...new Set([...printed.filter((v) => asked.includes(v)), ...asked])];
}

/** What the sheet shows for a record: what its type asks for, and every other variable that holds a value. */
export function shownFields(record: SourceRecord, printed: Variable[] = []): Variable[] {
  const asked = askedInOrder(record.type, printed);
  const held = ALL.filter((k) => record[k] !== undefined && !asked.includes(k));
  return [...asked, ...held];
}

/** Kinds whose editors print even where they have authors. */
const IN_EDITED = new Set<CslType>(['chapter', 'paper-conference', 'entry-encyclopedia', 'entry-dictionary']);

/**
 * What the sheet shows at first: what holds a value, and of what the type asks what the style prints too. Other roles than
 * the author’s wait where somebody is named, but for the editors of what is in an edited work.
 */
export function firstFields(record: SourceRecord, printed: Variable[]): Variable[] {
  const shown = shownFields(record, printed);
  if (printed.length === 0) return shown;
  const named = creatorsOf(record).length > 0;
  const waits = (field: Variable) =>
    (NAME_VARIABLES as readonly string[]).includes(field) &&
    named &&
    field !== 'author' &&
    !(field === 'editor' && IN_EDITED.has(record.type));
  return shown.filter(
    (field) => record[field] !== undefined || field === 'title' || (printed.includes(field) && !waits(field)),
  );
}

/** Every variable the sheet could add to a record: what the style would print of it first, then the others by label. */
export function otherFields(record: SourceRecord, printed: Variable[] = []): Variable[] {
  const shown = new Set(shownFields(record));
  const rest = ALL.filter((k) => !shown.has(k) && !printed.includes(k));
  return [
    ...printed.filter((k) => !shown.has(k)),
    ...rest.sort((a, b) => fieldLabel(a).localeCompare(fieldLabel(b), 'en')),
  ];
}

/** The creators of a record by role, authors first, in the order styles look for a first creator. */
export function creatorsOf(
  record: SourceRecord,
): { role: NameVariable; names: NonNullable<SourceRecord['author']> }[] {
  const first: NameVariable[] = ['author', 'director', 'composer', 'performer', 'interviewer', 'editor'];
  const roles = [...first, ...NAME_VARIABLES.filter((r) => !first.includes(r))];
  return roles.flatMap((role) => (record[role]?.length ? [{ role, names: record[role] }] : []));
}
