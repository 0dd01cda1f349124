import { findDoi } from '../source';

/** A link a page declares to something else, in HTML or in its Link header. `href` is absolute. */
export interface TypedLink {
  rel: string;
  href: string;
  type?: string;
  title?: string;
}

/**
 * Reads a Link header: comma-separated `<target>; name=value` with quoted or bare values; `rel` may hold several
 * relations. Links whose `anchor` is another document are left out. Source: RFC 8288, section 3.
 */
export function parseLinkHeader(header: string, base: string): TypedLink[] {
  const links: TypedLink[] = [];
  const each = /<([^<>]*)>((?:\s*;\s*[\w!#$&+.^`|~*-]+\s*(?:=\s*(?:"(?:[^"\\]|\\.)*"|[^\s",;]+))?)*)/g;
  for (const m of header.slice(0, 100_000).matchAll(each)) {
    const parameters: Record<string, string> = {};
    for (const p of m[2]!.matchAll(
      /;\s*([\w!#$&+.^`|~*-]+)\s*(?:=\s*(?:"((?:[^"\\]|\\.)*)"|([^\s",;]+)))?/g,
    )) {
      const name = p[1]!.toLowerCase();
      parameters[name] ??= (p[2]?.replace(/\\(.)/g, '$1') ?? p[3] ?? '').trim();
    }
    if (!parameters.rel || !URL.canParse(m[1]!, base)) continue;
    if (
      parameters.anchor &&
      URL.canParse(parameters.anchor, base) &&
      new URL(parameters.anchor, base).href !== base
    )
      continue;
    for (const rel of parameters.rel.split(/\s+/))
      links.push({
        rel: rel.toLowerCase(),
        href: new URL(m[1]!, base).href,
        ...(parameters.type ? { type: parameters.type.toLowerCase() } : {}),
        ...(parameters.title ? { title: parameters.title } : {}),
      });
  }
  return links;
}

/** The typed links of a page: its Link header first, then `link` elements. */
export function linksOf(doc: Document, address: string, header = ''): TypedLink[] {
  const links = parseLinkHeader(header, address);
  for (const link of [...doc.querySelectorAll('link[rel][href]')].slice(0, 500)) {
    const href = link.getAttribute('href')!;
    if (!URL.canParse(href, address)) continue;
    const type = link.getAttribute('type')?.toLowerCase();
    for (const rel of link.getAttribute('rel')!.toLowerCase().split(/\s+/).filter(Boolean))
      links.push({ rel, href: new URL(href, address).href, ...(type ? { type } : {}) });
  }
  return links;
}

/** A file a page names that describes it: where, and in which format. */
export interface LinkedFile {
  href: string;
  format: 'csl-json' | 'bibtex' | 'ris';
}

const MEDIA: [RegExp, LinkedFile['format']][] = [
  [/vnd\.citationstyles\.csl\+json/, 'csl-json'],
  [/x-bibtex|text\/bibtex|application\/bibtex/, 'bibtex'],
  [/x-research-info-systems|x-ris\b|application\/ris\b/, 'ris'],
];
const NAMES: [RegExp, LinkedFile['format']][] = [
  [/(?:\.bib$|[?&/](?:format=)?bibtex\b)/i, 'bibtex'],
  [/(?:\.ris$|[?&/](?:format=)?ris\b)/i, 'ris'],
  [/[?&/](?:format=)?csl-?json\b/i, 'csl-json'],
];

/**
 * The citation files a page leads to, most telling format first: `describedby` and `alternate` links with a media
 * type of a citation format (signposting.org; RFC 8288), then plain links whose address names one, on the same site.
 */
export function linkedFiles(doc: Document, address: string, links: TypedLink[]): LinkedFile[] {
  const files: LinkedFile[] = [];
  const host = new URL(address).host;
  const add = (href: string, format: LinkedFile['format'] | undefined) => {
    if (format && !files.some((f) => f.href === href)) files.push({ href, format });
  };
  for (const { rel, href, type } of links)
    if (rel === 'describedby' || rel === 'alternate' || rel === 'cite-as')
      add(href, MEDIA.find(([pattern]) => pattern.test(type ?? ''))?.[1]);
  for (const a of [...doc.querySelectorAll('a[href]')].slice(0, 3_000)) {
    const href = a.getAttribute('href')!;
    if (!URL.canParse(href, address)) continue;
    const url = new URL(href, address);
    if (url.host !== host || !/^https?:$/.test(url.protocol)) continue;
    if (a.closest('[class*="reference" i], [id*="reference" i], [class*="bibliograph" i], li li')) continue;
    const media = MEDIA.find(([pattern]) => pattern.test(a.getAttribute('type') ?? ''))?.[1];
    add(url.href, media ?? NAMES.find(([pattern]) => pattern.test(url.pathname + url.search))?.[1]);
  }
  const order = ['csl-json', 'bibtex', 'ris'];
  return files.sort((a, b) => order.indexOf(a.format) - order.indexOf(b.format)).slice(0, 6);
}

/** The DOI a page asks to be cited by (`rel=cite-as`, RFC 8574), if the link is a DOI's. */
export function citeAsDoi(links: TypedLink[]): string | undefined {
  return links
    .filter((l) => l.rel === 'cite-as')
    .map((l) => findDoi(l.href))
    .find(Boolean);
}

/** The PDF of the page's work: its citation tag, a signposting `item` link of that type, or an alternate link. */
export function pdfOf(doc: Document, address: string, links: TypedLink[]): string | undefined {
  const tag = doc.querySelector(
    'meta[name="citation_pdf_url" i], meta[name="eprints.document_url" i], meta[name="bepress_citation_pdf_url" i]',
  );
  const given = tag?.getAttribute('content')?.trim();
  if (given && URL.canParse(given, address)) return new URL(given, address).href;
  return links.find((l) => (l.rel === 'item' || l.rel === 'alternate') && l.type === 'application/pdf')?.href;
}
