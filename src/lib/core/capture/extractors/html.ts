import { findDoi, type CslType } from '../../source';
import { fold, squash } from '../../text';
import { collector, type Candidate } from '../candidate';
import { firstOf, metaTags } from '../meta';

const SEPARATOR = /\s+[|–—·»:•-]\s+|\s*\|\s*/u;

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

/** What stands beside the heading in the document's title: the name of the site, before or after it. */
function siteBeside(title: string, heading: string | undefined): string | undefined {
  const whole = squash(title);
  if (!heading || fold(whole) === fold(heading)) return undefined;
  const at = whole.toLowerCase().indexOf(heading.toLowerCase());
  if (at === -1) return undefined;
  const before = whole.slice(0, at).replace(/\s*[|–—·»:•-]\s*$/u, '');
  const after = whole.slice(at + heading.length);
  const behind =
    SEPARATOR.test(after) || /^\s*[|–—·»•-]/u.test(after)
      ? after.split(SEPARATOR).filter(Boolean).at(-1)
      : undefined;
  const name = squash((behind ?? before).replace(/^\s*[|–—·»:•-]\s*/u, ''));
  return name && name.length <= 60 ? name : undefined;
}

/** Where pages put their byline and their date, in the order they are asked. Class names are common practice. */
const BYLINES = [
  '[itemprop~="author"]',
  '.author-name, .byline-name',
  'a[rel~="author"]',
  '.byline, .by-line',
  '.post-author, .entry-author, .authors, .author',
  '[class*="byline" i]',
];
/** Whether a byline is the page's own and not that of an entry it lists or of a comment. */
const ofPage = (element: Element) => element.closest('li li, tr, .comment, ol > li, .result') === null;
/** "By" in German, French, Spanish, Portuguese, Italian before a name that begins with a capital and has two words. */
const BY = /^(?:von|par|por|di|de)\s+(?=\p{Lu}[\p{Ll}\p{M}’-]+\s+\p{L})/u;
const TIMES =
  'time[itemprop="datePublished"], time[pubdate], article header time[datetime], article time[datetime], main time[datetime], header time[datetime], time.published[datetime], .entry-date[datetime]';
const DATE_TAGS = [
  'date',
  'pubdate',
  'publishdate',
  'publish-date',
  'publication_date',
  'published',
  'article.published',
  'sailthru.date',
  'parsely-pub-date',
  'date.issued',
  'dc.date.created',
];
/** Words before a date that make it the day of publication, in the languages most pages here come in. */
const PUBLISHED =
  /(?:published|posted|first published|veröffentlicht(?: am)?|publié(?: le)?|publicado(?: el)?|stand)\s*:?\s*(?:on\s+)?((?:\d{1,2}\.?\s+)?\p{L}{3,12}\.?\s+(?:\d{1,2},?\s+)?\d{4}|\d{4}-\d{2}-\d{2})/iu;

/** A day, as pages write it in words or figures. */
const DAY = /\d{1,2}\.?\s+\p{L}{3,12}\.?\s+\d{4}|\p{L}{3,12}\.?\s+\d{1,2},?\s+\d{4}|\d{4}-\d{2}-\d{2}/u;

/** What the words of an address and of a site's name say of the kind of page. A guess, and noted as one. */
function guessedType(address: string, site: string, doc: Document): CslType | undefined {
  const { host, pathname } = new URL(address);
  if (
    /(?:^|\.)blogs?\.|\/blogs?\//i.test(host + pathname) ||
    doc.querySelector('body.single-post, article.post, .hentry')
  )
    return 'post-weblog';
  if (/\/encyclop(?:a?edia)?\/|encyclop/i.test(`${host} ${site}`)) return 'entry-encyclopedia';
  if (
    /\b(?:times|post|gazette|herald|ledger|courier|tribune|chronicle|observer|guardian|zeitung|journal du|daily|newspaper|anzeiger|mercury)\b/i.test(
      site,
    ) &&
    /\d{4}\/\d{2}|news|article/i.test(host + pathname)
  )
    return 'article-newspaper';
  return undefined;
}

/** Whether an element stands among the references of the page rather than in its own text. */
const among = (element: Element) =>
  element.closest(
    '[class*="reference" i], [id*="reference" i], [class*="bibliograph" i], [class*="citation" i], [role="doc-bibliography"], ol li, footer, aside, nav',
  ) !== null;

/** The DOI a page prints for itself: outside of its references, and the only one there. */
function printedDoi(doc: Document): string | undefined {
  const found = new Map<string, string>();
  for (const a of [
    ...doc.querySelectorAll('a[href*="//doi."], a[href*="//dx.doi."], .doi, [class*="doi" i]'),
  ].slice(0, 400)) {
    if (among(a)) continue;
    const doi = findDoi(a.getAttribute('href') ?? '') ?? findDoi(a.textContent ?? '');
    if (doi) found.set(doi.toLowerCase(), doi);
  }
  return found.size === 1 ? [...found.values()][0] : undefined;
}

/** Reads what plain HTML says: title and heading, byline, dates, `lang`, `rel=canonical`, the author meta tag. */
export function html(doc: Document, address: string): Candidate[] {
  const c = collector('html');
  const tags = metaTags(doc);
  c.type('webpage', 'a page');
  const site = firstOf(tags, 'og:site_name', 'application-name') ?? '';
  c.type(
    guessedType(address, site || (doc.title.split(SEPARATOR).at(-1) ?? ''), doc),
    'guessed from its address and site',
  );
  const headings = [...doc.querySelectorAll('main h1, article h1, h1')];
  const heading = headings.length > 0 ? squash(headings[0]?.textContent ?? '') : undefined;
  c.text('title', pageTitle(doc.title || heading || '', heading), doc.title ? 'title' : 'h1');
  c.text(
    'container-title',
    firstOf(tags, 'application-name') ?? siteBeside(doc.title, heading),
    'the site’s name',
  );
  const scope = doc.querySelector('article') ?? doc.querySelector('main') ?? doc.body;
  const byline =
    BYLINES.map((selector) => [...(scope?.querySelectorAll(selector) ?? [])].find(ofPage)).find(Boolean) ??
    [...doc.querySelectorAll(BYLINES.join(', '))].find(ofPage);
  const written =
    firstOf(tags, 'author', 'article.author', 'parsely-author', 'sailthru.author', 'byl') ??
    byline?.textContent ??
    undefined;
  if (written && written.length < 300 && !/^\s*https?:/i.test(written))
    c.names('author', [written.trim().replace(BY, '')], 'byline');
  const time = doc.querySelector(TIMES);
  c.date(
    'issued',
    firstOf(tags, ...DATE_TAGS) ?? time?.getAttribute('datetime') ?? undefined,
    time ? 'time' : 'date',
  );
  if (!time && !firstOf(tags, ...DATE_TAGS)) {
    const marked = scope?.querySelector(
      '.date, .published, .pubdate, .post-date, .entry-date, [itemprop="datePublished"]',
    );
    const words = squash(scope?.textContent?.slice(0, 6_000) ?? '');
    const inByline = DAY.exec(squash(byline?.textContent ?? ''))?.[0];
    c.date(
      'issued',
      DAY.exec(squash(marked?.textContent ?? ''))?.[0] ?? inByline ?? PUBLISHED.exec(words)?.[1],
      'words of the page',
    );
  }
  c.text('language', doc.documentElement?.getAttribute('lang') ?? undefined, 'lang');
  c.text('DOI', printedDoi(doc), 'printed on the page');
  const canonical = doc.querySelector('link[rel~="canonical"]')?.getAttribute('href');
  if (canonical && URL.canParse(canonical, address)) {
    const url = new URL(canonical, address);
    // A canonical address that points at a site's front page is a common mistake of templates.
    if (url.host === new URL(address).host && url.pathname !== '/') c.text('URL', url.href, 'canonical');
  }
  return c.found;
}
