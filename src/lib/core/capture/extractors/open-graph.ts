import { collector, textOnly, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

/** Reads Open Graph and `article:*` tags. Properties: The Open Graph protocol (ogp.me), article vertical. */
export function openGraph(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('open-graph');
  if (firstOf(tags, 'og:type') === 'book') c.type('book', 'og:type');
  c.text('title', textOnly(firstOf(tags, 'og:title') ?? ''), 'og:title');
  c.text('container-title', firstOf(tags, 'og:site_name'), 'og:site_name');
  const authors = (tags.get('article:author') ?? tags.get('book:author') ?? []).filter(
    (a) => !/^https?:/i.test(a),
  );
  c.names('author', authors, 'article:author');
  c.date('issued', firstOf(tags, 'article:published_time', 'book:release_date'), 'article:published_time');
  c.text('language', firstOf(tags, 'og:locale')?.replace('_', '-'), 'og:locale');
  c.text('URL', firstOf(tags, 'og:url'), 'og:url');
  return c.found;
}
