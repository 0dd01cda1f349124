import { fold, squash } from '../../text';
import { collector, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

const SEPARATOR = /\s+[|–—·»-]\s+/u;

/**
 * A document title without the site's name: of the parts between separators, the one the main heading repeats, or
 * the longest when there is no heading.
 */
export function pageTitle(title: string, heading: string | undefined): string {
  const parts = squash(title).split(SEPARATOR);
  const key = fold(heading ?? '');
  if (key && fold(title).includes(key)) return squash(heading ?? '');
  return parts.reduce((best, part) => (part.length > best.length ? part : best), '');
}

/** Reads what plain HTML says: title and heading, byline, `time`, `lang`, `rel=canonical`, author meta tag. */
export function html(doc: Document, address: string): Candidate[] {
  const c = collector('html');
  const tags = metaTags(doc);
  c.type('webpage', 'a page');
  const headings = [...doc.querySelectorAll('main h1, article h1, h1')];
  const heading = headings.length > 0 ? squash(headings[0]?.textContent ?? '') : undefined;
  c.text('title', pageTitle(doc.title || heading || '', heading), doc.title ? 'title' : 'h1');
  const byline = doc.querySelector('[rel~="author"], .byline, .author, [itemprop="author"]');
  const author = firstOf(tags, 'author') ?? byline?.textContent ?? undefined;
  if (author && author.length < 300 && !/^https?:/i.test(author))
    c.names('author', [squash(author)], 'byline');
  const time = doc.querySelector(
    'article time[datetime], main time[datetime], header time[datetime], time[pubdate]',
  );
  c.date('issued', time?.getAttribute('datetime') ?? undefined, 'time');
  c.text('language', doc.documentElement?.getAttribute('lang') ?? undefined, 'lang');
  const canonical = doc.querySelector('link[rel~="canonical"]')?.getAttribute('href');
  if (canonical && URL.canParse(canonical, address)) {
    const url = new URL(canonical, address);
    // A canonical address that points at a site's front page is a common mistake of templates.
    if (url.host === new URL(address).host && url.pathname !== '/') c.text('URL', url.href, 'canonical');
  }
  return c.found;
}
