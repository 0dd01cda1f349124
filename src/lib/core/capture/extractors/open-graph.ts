import type { CslType } from '../../source';
import { collector, textOnly, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

/** `og:type` values that say what kind of work a page is. Source: The Open Graph protocol (ogp.me), object types. */
const TYPES: Record<string, CslType> = {
  book: 'book',
  'books.book': 'book',
  'video.movie': 'motion_picture',
  'video.episode': 'broadcast',
  'video.tv_show': 'broadcast',
  'music.song': 'song',
  'music.album': 'song',
};

/** Reads Open Graph, `article:*`, `book:*` and `video:*` tags. Properties: The Open Graph protocol (ogp.me). */
export function openGraph(doc: Document): Candidate[] {
  const tags = metaTags(doc);
  const c = collector('open-graph');
  const kind = firstOf(tags, 'og:type')?.toLowerCase() ?? '';
  c.type(TYPES[kind], 'og:type');
  c.text('title', textOnly(firstOf(tags, 'og:title') ?? ''), 'og:title');
  c.text('container-title', firstOf(tags, 'og:site_name'), 'og:site_name');
  const people = (...names: string[]) =>
    names.flatMap((n) => tags.get(n) ?? []).filter((a) => !/^https?:/i.test(a));
  c.names('author', people('article:author', 'book:author'), 'article:author');
  c.names('director', people('video:director'), 'video:director');
  c.date(
    'issued',
    firstOf(
      tags,
      'article:published_time',
      'og:article:published_time',
      'book:release_date',
      'video:release_date',
      'music:release_date',
    ),
    'article:published_time',
  );
  c.text('ISBN', firstOf(tags, 'book:isbn'), 'book:isbn');
  c.text('language', firstOf(tags, 'og:locale')?.replace('_', '-'), 'og:locale');
  if (kind !== 'website' && TYPES[kind])
    c.text('abstract', textOnly(firstOf(tags, 'og:description') ?? ''), 'og:description');
  c.text('URL', firstOf(tags, 'og:url'), 'og:url');
  return c.found;
}
