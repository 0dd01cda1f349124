import { addressKey, findDoi, type CslType, type SourceRecord } from '../source';
import { fold, squash } from '../text';
import { collector, type Candidate } from './candidate';
import { contextObjects, fromContextObject } from './extractors/coins';
import { jsonLdNodes } from './extractors/json-ld';
import { microdataNodes } from './extractors/microdata';
import { rdfaNodes } from './extractors/rdfa';
import type { TypedLink } from './links';
import { reconcile } from './reconcile';
import { fromWork, isNode, listOf, typesOf, worksAmong, type SchemaNode } from './schema-org';

/** One work of a list: what the list says of it, and where its own page or record is. */
export interface ListedWork {
  record: SourceRecord;
  address?: string;
  doi?: string;
}

/** A page lists works when it has at least this many and is not about one of its own. */
const FEWEST = 2;
const MOST = 300;

/** A day for records that are only read, not kept; they are captured anew when they are chosen. */
const UNKEPT = '1970-01-01T00:00:00.000Z';

function listed(candidates: Candidate[], address: string | undefined, base: string): ListedWork | undefined {
  const record = reconcile(candidates, address, UNKEPT);
  if (!record.title) return undefined;
  const doi = record.DOI;
  const target = address ?? record.URL;
  const url = target && URL.canParse(target, base) ? new URL(target, base) : undefined;
  // What runs something, or names a file of the reader's, is no address of a work.
  const own = url && /^https?:$/.test(url.protocol) ? url.href : undefined;
  return { record, ...(own && own !== base ? { address: own } : {}), ...(doi ? { doi } : {}) };
}

const hrefOf = (node: SchemaNode) => {
  const url = listOf(node.url)[0] ?? node['@id'];
  return typeof url === 'string' && !url.startsWith('_:') && !url.startsWith('#') ? url : undefined;
};

function fromNodes(nodes: SchemaNode[], kind: 'json-ld' | 'microdata' | 'rdfa', base: string): ListedWork[] {
  const items = nodes
    .filter((n) =>
      typesOf(n).some((t) => t === 'ItemList' || t === 'SearchResultsPage' || t === 'CollectionPage'),
    )
    .flatMap((n) => [...listOf(n.itemListElement), ...listOf(n.hasPart)])
    .filter(isNode)
    .map((n) => (isNode(n.item) ? n.item : n));
  const parts = nodes
    .filter((n) =>
      typesOf(n).some((t) =>
        /^(?:PublicationIssue|PublicationVolume|Periodical|Book|Collection|DataCatalog)$/.test(t),
      ),
    )
    .flatMap((n) =>
      listOf(n.hasPart)
        .filter(isNode)
        .map((part) => ({ isPartOf: { ...n, hasPart: undefined }, ...part })),
    );
  const pool = [...items, ...parts, ...(items.length + parts.length ? [] : nodes)];
  const byId = new Map(nodes.filter((n) => n['@id']).map((n) => [String(n['@id']), n]));
  return worksAmong(pool)
    .filter(({ type }) => type !== 'webpage')
    .map(({ node, type }) => listed(fromWork(node, type, kind, byId), hrefOf(node), base))
    .filter((w) => w !== undefined);
}

/** Words of a row that say what its work is. */
const KINDS: [RegExp, CslType][] = [
  [/\b(?:thesis|dissertation)\b/i, 'thesis'],
  [/\bbook chapter\b/i, 'chapter'],
  [/\bbook review\b/i, 'review-book'],
  [/\b(?:journal )?article\b/i, 'article-journal'],
  [/\bbook\b/i, 'book'],
  [/\b(?:report|working paper)\b/i, 'report'],
  [/\b(?:conference|proceedings)\b/i, 'paper-conference'],
  [/\bdataset\b/i, 'dataset'],
];

/** The text of an element with a space between its parts. */
const spaced = (element: Element): string =>
  squash(
    [...element.childNodes]
      .map((n) => (n.nodeType === 1 ? spaced(n as Element) : (n.textContent ?? '')))
      .join(' '),
  );

/** A table of contents or a results list in plain HTML: a run of like elements, each with one telling link to its work. */
function fromHtml(doc: Document, base: string): ListedWork[] {
  const host = new URL(base).host;
  const rows = new Map<Element, Element[]>();
  const entries = doc.querySelectorAll(
    'main li, main article, main tr, main .result, main dt, #content li, article li, body li, body article, .results > *, [class*="toc" i] > *, [class*="search-result" i]',
  );
  for (const entry of [...entries].slice(0, 3_000)) {
    if (
      entry.closest(
        'nav, header, footer, aside, [role="navigation"], [class*="breadcrumb" i], [class*="pagination" i], [class*="reference" i]',
      )
    )
      continue;
    if (!entry.parentElement || entry.querySelector('li li, article article')) continue;
    const list = rows.get(entry.parentElement) ?? [];
    list.push(entry);
    rows.set(entry.parentElement, list);
  }
  const titled = (entry: Element) => {
    const heading = entry.querySelector(
      'h2 a[href], h3 a[href], h4 a[href], .title a[href], a.title[href], cite a[href]',
    );
    const longest = () =>
      [...entry.querySelectorAll('a[href]')]
        .map((a) => ({ a, length: squash(a.textContent ?? '').length }))
        .reduce<{ a: Element; length: number } | undefined>(
          (best, each) => (best && best.length >= each.length ? best : each),
          undefined,
        )?.a;
    const link = heading ?? longest();
    const text = squash(link?.textContent ?? '');
    const href = link?.getAttribute('href') ?? '';
    if (!link || text.length < 12 || text.split(' ').length < 3 || !URL.canParse(href, base))
      return undefined;
    const url = new URL(href, base);
    if (!/^https?:$/.test(url.protocol) || url.pathname === '/' || (url.host !== host && !findDoi(url.href)))
      return undefined;
    return { link, text, href: url.href };
  };
  let best: ListedWork[] = [];
  for (const [parent, list] of rows) {
    if (list.length < 3) continue;
    const found = list.map((entry) => ({ entry, at: titled(entry) }));
    const good = found.filter((f) => f.at);
    // Most rows of a list of works name a work and say more than its title: who, when, which pages.
    const more = good.filter(({ entry, at }) => squash(entry.textContent ?? '').length > at!.text.length + 6);
    if (good.length < Math.max(3, list.length * 0.6) || more.length < good.length * 0.6) continue;
    if (/\bmenu\b|\bnav/i.test(parent.className)) continue;
    const works = good.flatMap(({ entry, at }) => {
      const c = collector('html');
      const { text, href } = at!;
      c.text('title', text, 'the list');
      const who = entry.querySelector('.authors, .author, .creators, .creator, .byline, [class*="author" i]');
      if (who) c.names('author', [squash(who.textContent ?? '')], 'the list');
      const rest = spaced(entry).replace(text, ' ');
      const time = entry.querySelector('time[datetime]')?.getAttribute('datetime');
      const year = /\b(1[5-9]\d\d|20\d\d)\b/.exec(rest)?.[1];
      if (time ?? year) c.date('issued', time ?? year, 'the list');
      const pages = /\b(?:pp?\.?\s*)(\w*\d+\s*[–-]\s*\w*\d+)/.exec(rest)?.[1];
      if (pages) c.text('page', pages.replace(/\s*[–-]\s*/, '-'), 'the list');
      const doi = findDoi(href) ?? findDoi(rest);
      if (doi) c.text('DOI', doi, 'the list');
      const kind = KINDS.find(([pattern]) => pattern.test(rest))?.[1];
      if (kind) c.type(kind, 'the list');
      else if (pages) c.type('article-journal', 'the list');
      const work = listed(c.found, findDoi(href) ? undefined : href, base);
      return work ? [work] : [];
    });
    if (works.length > best.length) best = works;
  }
  return best;
}

/** What keeps a page from being a list: it is about a work of its own. */
const ownWork = (candidates: Candidate[]) =>
  candidates.some(
    (c) =>
      (['highwire', 'prism', 'dublin-core'].includes(c.kind) && c.field === 'title') ||
      (['json-ld', 'microdata', 'rdfa', 'coins', 'open-graph'].includes(c.kind) &&
        c.field === 'type' &&
        !['webpage', 'document', 'periodical'].includes(String(c.value))),
  );

/**
 * The works a page lists: a table of contents, search results, a library list, an author's page. Asked in turn:
 * embedded references (COinS), schema.org lists and parts, signposting `item` links of works, and rows of plain HTML.
 * Empty for a page about one work, whatever it cites.
 */
export function worksListed(
  doc: Document,
  base: string,
  candidates: Candidate[],
  links: TypedLink[],
): ListedWork[] {
  const objects = contextObjects(doc);
  const own = ownWork(candidates);
  const unique = (works: ListedWork[]) => {
    const seen = new Set<string>();
    return works
      .filter(({ doi, address, record }) => {
        const keys = [
          doi && `doi ${doi}`,
          address && `address ${addressKey(address) ?? address}`,
          `title ${fold(record.title ?? '')}`,
        ].filter((key): key is string => Boolean(key));
        const before = keys.some((key) => seen.has(key));
        for (const key of keys) seen.add(key);
        return !before;
      })
      .slice(0, MOST);
  };
  if (own) return [];
  const spans = [...doc.querySelectorAll('span.Z3988[title]')];
  const tries: (() => ListedWork[])[] = [
    () =>
      objects.length < FEWEST
        ? []
        : objects
            .map((kev, i) => {
              const entry = spans[i]?.closest('li, article, tr, dd, div');
              const href = entry?.querySelector('a[href]')?.getAttribute('href') ?? undefined;
              const near =
                entry && entry.querySelectorAll('span.Z3988').length === 1 && href && URL.canParse(href, base)
                  ? new URL(href, base).href
                  : undefined;
              return listed(fromContextObject(kev), near, base);
            })
            .filter((w) => w !== undefined),
    () => fromNodes(jsonLdNodes(doc), 'json-ld', base),
    () => fromNodes(microdataNodes(doc), 'microdata', base),
    () => fromNodes(rdfaNodes(doc), 'rdfa', base),
    () => fromHtml(doc, base),
    () =>
      links
        .filter((l) => l.rel === 'item' && (!l.type || /html/.test(l.type)))
        .map(({ href, title }) => {
          const c = collector('html');
          c.text('title', title ?? findDoi(href) ?? href, 'rel=item');
          c.text('DOI', findDoi(href), 'rel=item');
          return listed(c.found, findDoi(href) ? undefined : href, base);
        })
        .filter((w) => w !== undefined),
  ];
  for (const attempt of tries) {
    const works = unique(attempt());
    if (works.length >= FEWEST) return works;
  }
  return [];
}
