import type { CslType } from '../../source';
import { findDoi, findIsbn } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { metaTags } from '../meta';

/** Words of the DCMI Type vocabulary and of repository practice to CSL types. */
const TYPES: [RegExp, CslType][] = [
  [/thesis|dissertation/, 'thesis'],
  [/conference|proceeding/, 'paper-conference'],
  [/book ?part|chapter/, 'chapter'],
  [/working ?paper|report/, 'report'],
  [/preprint/, 'article'],
  [/article|journal/, 'article-journal'],
  [/book|monograph/, 'book'],
  [/dataset/, 'dataset'],
  [/software/, 'software'],
  [/movingimage|film|video/, 'motion_picture'],
  [/\bmap\b|cartographic/, 'map'],
  [/stillimage|photograph/, 'graphic'],
];

/**
 * Reads Dublin Core in meta tags, both `DC.title` and `dcterms.title` spellings.
 * Elements: DCMI Metadata Terms (dublincore.org/specifications/dublin-core/dcmi-terms).
 */
export function dublinCore(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('dublin-core');
  const all = (...names: string[]) =>
    names.flatMap((n) =>
      [`dcterms.${n}`, `dc.${n}`, `dcterms:${n}`, `dc:${n}`].flatMap((t) => tags.get(t) ?? []),
    );
  const one = (...names: string[]) => all(...names)[0];
  const type = all('type').join(' ').toLowerCase();
  c.type(TYPES.find(([pattern]) => pattern.test(type))?.[1], 'DC.type');
  c.text('title', textOnly(one('title') ?? ''), 'DC.title');
  c.names('author', all('creator'), 'DC.creator');
  c.date('issued', one('issued') ?? one('date') ?? one('created'), 'DC.date');
  const container = one('ispartof', 'source', 'relation.ispartof');
  if (container && !/^https?:|^urn:/i.test(container)) c.text('container-title', container, 'DC.isPartOf');
  c.text('publisher', one('publisher'), 'DC.publisher');
  c.text('language', one('language'), 'DC.language');
  c.text('abstract', textOnly(one('abstract', 'description') ?? ''), 'DC.description');
  const identifiers = all('identifier', 'identifier.doi', 'identifier.isbn', 'identifier.uri');
  c.text('DOI', identifiers.map(findDoi).find(Boolean), 'DC.identifier');
  c.text('ISBN', identifiers.map(findIsbn).find(Boolean), 'DC.identifier');
  c.text('ISSN', one('identifier.issn'), 'DC.identifier.issn');
  c.text('volume', one('citation.volume'), 'DC.citation.volume');
  c.text('issue', one('citation.issue'), 'DC.citation.issue');
  c.text('page', pageRange(one('citation.spage'), one('citation.epage')), 'DC.citation.spage');
  return c.found;
}
