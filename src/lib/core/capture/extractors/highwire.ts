import { type CslType, findDoi, findIsbn } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

const CONTAINERS: [string, CslType][] = [
  ['journal_title', 'article-journal'],
  ['conference_title', 'paper-conference'],
  ['conference', 'paper-conference'],
  ['inbook_title', 'chapter'],
  ['book_title', 'chapter'],
  ['dissertation_institution', 'thesis'],
  ['dissertation_name', 'thesis'],
  ['technical_report_institution', 'report'],
];

/**
 * Reads `citation_*` meta tags, the vocabulary publishers provide for scholarly indexing (names are those the
 * indexers' inclusion guidelines list; from memory), and the same names with the prefixes repositories put before
 * them. The container tag present tells the type.
 */
export function highwire(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('highwire');
  const spelt = (n: string) => [`citation_${n}`, `bepress_citation_${n}`, `eprints.${n}`];
  const all = (n: string) => spelt(n).flatMap((t) => tags.get(t) ?? []);
  const one = (...names: string[]) => firstOf(tags, ...names.flatMap(spelt));
  const title = one('title');
  const container = CONTAINERS.find(([tag]) => one(tag));
  if (container) {
    const [tag, type] = container;
    const value = one(tag) ?? '';
    // The title of a whole book stands in both tags on the page of the book itself.
    const whole = tag === 'book_title' && textOnly(value) === textOnly(title ?? '');
    const preprint = type === 'article-journal' && /^(?:preprint|.*xiv$)/i.test(value);
    c.type(whole ? 'book' : preprint ? 'article' : type, `citation_${tag}`);
    const field = type === 'thesis' || type === 'report' ? 'publisher' : 'container-title';
    if (!whole && tag !== 'dissertation_name') c.text(field, textOnly(value), `citation_${tag}`);
    if (tag === 'dissertation_name') c.text('genre', value, 'citation_dissertation_name');
    if (type === 'paper-conference')
      c.text('event-title', one('conference', 'conference_title'), 'citation_conference');
  } else if (one('isbn') && title) c.type('book', 'citation_isbn');
  else if (one('arxiv_id', 'preprint_server')) c.type('article', 'citation_arxiv_id');
  c.text('title', textOnly(title ?? ''), 'citation_title');
  c.names(
    'author',
    [...all('author'), ...(all('author').length ? [] : [...all('authors'), ...all('creators_name')])],
    'citation_author',
  );
  c.names('editor', all('editor'), 'citation_editor');
  c.names('translator', all('translator'), 'citation_translator');
  c.date('issued', one('publication_date', 'date', 'cover_date', 'year'), 'citation_publication_date');
  if (!one('publication_date', 'date', 'cover_date', 'year'))
    c.date('issued', one('online_date'), 'citation_online_date');
  c.text('container-title-short', one('journal_abbrev'), 'citation_journal_abbrev');
  for (const field of ['volume', 'issue', 'publisher', 'language'] as const)
    c.text(field, one(field), `citation_${field}`);
  c.text(
    'page',
    pageRange(one('firstpage'), one('lastpage')) ?? pageRange(one('pages')),
    'citation_firstpage',
  );
  c.text('number', one('technical_report_number', 'arxiv_id'), 'citation_technical_report_number');
  c.text('collection-title', one('series_title'), 'citation_series_title');
  c.text('DOI', findDoi(one('doi') ?? ''), 'citation_doi');
  c.text('ISSN', one('issn', 'eissn'), 'citation_issn');
  c.text('ISBN', findIsbn(one('isbn') ?? ''), 'citation_isbn');
  c.text('PMID', one('pmid'), 'citation_pmid');
  c.text('abstract', textOnly(one('abstract') ?? ''), 'citation_abstract');
  c.text('keyword', all('keywords').join(', '), 'citation_keywords');
  c.text('URL', one('abstract_html_url', 'public_url'), 'citation_abstract_html_url');
  return c.found;
}
