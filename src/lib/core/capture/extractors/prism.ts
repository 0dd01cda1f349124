import { findDoi, type CslType } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

const TYPES: Record<string, CslType> = {
  journal: 'article-journal',
  magazine: 'article-magazine',
  newspaper: 'article-newspaper',
  book: 'chapter',
  blog: 'post-weblog',
};

/**
 * Reads PRISM in meta tags, `prism.publicationName` and `prism:publicationName` alike.
 * Elements and the values of `aggregationType`: PRISM Basic Metadata specification and its controlled vocabularies.
 */
export function prism(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('prism');
  const one = (...names: string[]) =>
    firstOf(tags, ...names.flatMap((n) => [`prism.${n}`, `prism:${n}`].map((t) => t.toLowerCase())));
  const aggregation = one('aggregationType')?.toLowerCase() ?? '';
  c.type(
    TYPES[aggregation] ?? (one('publicationName') && one('issn') ? 'article-journal' : undefined),
    'prism.aggregationType',
  );
  c.text('title', textOnly(one('title') ?? ''), 'prism.title');
  c.text('container-title', one('publicationName'), 'prism.publicationName');
  c.text('volume', one('volume'), 'prism.volume');
  c.text('issue', one('number', 'issueIdentifier'), 'prism.number');
  c.text(
    'page',
    pageRange(one('pageRange')) ?? pageRange(one('startingPage'), one('endingPage')),
    'prism.startingPage',
  );
  c.date('issued', one('publicationDate', 'coverDate', 'coverDisplayDate'), 'prism.publicationDate');
  c.text('ISSN', one('issn', 'eIssn'), 'prism.issn');
  c.text('ISBN', one('isbn'), 'prism.isbn');
  c.text('DOI', findDoi(one('doi') ?? ''), 'prism.doi');
  c.text('edition', one('edition'), 'prism.edition');
  c.text('section', one('section'), 'prism.section');
  c.text('URL', one('url'), 'prism.url');
  return c.found;
}
