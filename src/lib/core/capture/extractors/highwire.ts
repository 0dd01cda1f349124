import type { CslType } from '../../source';
import { findDoi } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

/**
 * Reads `citation_*` meta tags, the vocabulary publishers provide for scholarly indexing (names are those the
 * indexers' inclusion guidelines list; from memory). The container tag present tells the type.
 */
export function highwire(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('highwire');
  const one = (...names: string[]) => firstOf(tags, ...names.map((n) => `citation_${n}`));
  const containers: [string, CslType][] = [
    ['journal_title', 'article-journal'],
    ['conference_title', 'paper-conference'],
    ['inbook_title', 'chapter'],
    ['book_title', 'chapter'],
    ['dissertation_institution', 'thesis'],
    ['technical_report_institution', 'report'],
  ];
  const container = containers.find(([tag]) => tags.has(`citation_${tag}`));
  if (container) {
    const [tag, type] = container;
    c.type(type, `citation_${tag}`);
    const field = type === 'thesis' || type === 'report' ? 'publisher' : 'container-title';
    c.text(field, one(tag), `citation_${tag}`);
  }
  c.text('title', textOnly(one('title') ?? ''), 'citation_title');
  c.names('author', tags.get('citation_author') ?? tags.get('citation_authors') ?? [], 'citation_author');
  c.names('editor', tags.get('citation_editor') ?? [], 'citation_editor');
  c.date(
    'issued',
    one('publication_date', 'date', 'cover_date', 'year', 'online_date'),
    'citation_publication_date',
  );
  c.text('container-title-short', one('journal_abbrev'), 'citation_journal_abbrev');
  for (const field of ['volume', 'issue', 'publisher', 'language'] as const)
    c.text(field, one(field), `citation_${field}`);
  c.text('page', pageRange(one('firstpage'), one('lastpage')), 'citation_firstpage');
  c.text('number', one('technical_report_number'), 'citation_technical_report_number');
  c.text('DOI', findDoi(one('doi') ?? ''), 'citation_doi');
  c.text('ISSN', one('issn'), 'citation_issn');
  c.text('ISBN', one('isbn'), 'citation_isbn');
  c.text('PMID', one('pmid'), 'citation_pmid');
  c.text('abstract', textOnly(one('abstract') ?? ''), 'citation_abstract');
  c.text('keyword', (tags.get('citation_keywords') ?? []).join(', '), 'citation_keywords');
  c.text('URL', one('abstract_html_url', 'public_url'), 'citation_abstract_html_url');
  return c.found;
}
