import { findDoi, parseName, type CslName, type CslType, type NameVariable } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';

type Node = Record<string, unknown>;

/** schema.org types that are works, to CSL types, surest first. Source: schema.org, CreativeWork and its subtypes. */
const WORKS: [string, CslType][] = [
  ['ScholarlyArticle', 'article-journal'],
  ['MedicalScholarlyArticle', 'article-journal'],
  ['Thesis', 'thesis'],
  ['Chapter', 'chapter'],
  ['Book', 'book'],
  ['Report', 'report'],
  ['Dataset', 'dataset'],
  ['NewsArticle', 'article-newspaper'],
  ['ReportageNewsArticle', 'article-newspaper'],
  ['OpinionNewsArticle', 'article-newspaper'],
  ['BlogPosting', 'post-weblog'],
  ['SoftwareApplication', 'software'],
  ['SoftwareSourceCode', 'software'],
  ['Movie', 'motion_picture'],
  ['Map', 'map'],
  ['Article', 'article-magazine'],
  ['CreativeWork', 'document'],
  ['WebPage', 'webpage'],
];

const list = (value: unknown): unknown[] =>
  value === undefined || value === null ? [] : Array.isArray(value) ? value : [value];
const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const typesOf = (node: Node) =>
  list(node['@type']).map((t) => String(t).replace(/^(?:https?:\/\/schema\.org\/|schema:)/, ''));
const text = (value: unknown): string | undefined => {
  const first = list(value)[0];
  if (typeof first === 'string' || typeof first === 'number') return String(first);
  return isNode(first) ? text(first.name ?? first['@value'] ?? first.value) : undefined;
};

/** All nodes of a page's JSON-LD blocks, `@graph` and arrays opened; blocks that do not parse are passed over. */
function nodesOf(doc: Document): Node[] {
  const nodes: Node[] = [];
  for (const script of doc.querySelectorAll('script[type="application/ld+json"]')) {
    try {
      const open = (value: unknown): void => {
        for (const v of list(value)) {
          if (!isNode(v)) continue;
          nodes.push(v);
          open(v['@graph']);
          open(v.mainEntity);
        }
      };
      open(JSON.parse(script.textContent ?? ''));
    } catch {
      continue;
    }
  }
  return nodes;
}

function nameOf(value: unknown): CslName | undefined {
  if (typeof value === 'string') return parseName(value);
  if (!isNode(value)) return undefined;
  if (typesOf(value).some((t) => /Organization|Corporation|GovernmentOrganization/.test(t))) {
    const literal = text(value.name);
    return literal ? { literal } : undefined;
  }
  const [family, given] = [text(value.familyName), text(value.givenName)];
  if (family) return parseName(given ? `${family}, ${given}` : family);
  return parseName(text(value.name) ?? '');
}

/** The chain of `isPartOf` nodes above a work, nearest first. */
function partsOf(node: Node, byId: Map<string, Node>): Node[] {
  const chain: Node[] = [];
  let at: unknown = list(node.isPartOf)[0];
  while (isNode(at) && chain.length < 6) {
    const whole: Node = { ...byId.get(String(at['@id'])), ...at };
    chain.push(whole);
    at = list(whole.isPartOf)[0];
  }
  return chain;
}

const NAMES: [string, NameVariable][] = [
  ['author', 'author'],
  ['creator', 'author'],
  ['editor', 'editor'],
  ['translator', 'translator'],
  ['director', 'director'],
];

/**
 * Reads schema.org in JSON-LD. The work is the node of the surest type (`WORKS`); the site's own blocks
 * (WebSite, Organization, BreadcrumbList) are never taken for it. `isPartOf` leads through issue, volume and
 * periodical. Properties: schema.org/Article, ScholarlyArticle, PublicationIssue, PublicationVolume.
 */
export function jsonLd(doc: Document): Candidate[] {
  const c = collector('json-ld');
  const nodes = nodesOf(doc);
  const byId = new Map(nodes.filter((n) => n['@id']).map((n) => [String(n['@id']), n]));
  const [work, type] =
    WORKS.map(([name, csl]) => [nodes.find((n) => typesOf(n).includes(name)), csl] as const).find(
      ([n]) => n,
    ) ?? [];
  if (!work || !type) return c.found;
  const parts = partsOf(work, byId);
  const part = (name: string) => parts.find((p) => typesOf(p).includes(name));
  const periodical = parts.find((p) => typesOf(p).some((t) => /Periodical|Newspaper|Magazine/.test(t)));
  const book = parts.find((p) => typesOf(p).includes('Book'));
  const scholarly = type === 'article-magazine' && periodical && findDoi(JSON.stringify(work));
  c.type(scholarly ? 'article-journal' : type, `@type ${typesOf(work).join(', ')}`);
  c.text('title', textOnly(text(work.headline) ?? text(work.name) ?? ''), 'headline');
  for (const [property, role] of NAMES)
    c.names(
      role,
      list(work[property])
        .map(nameOf)
        .filter((n) => n !== undefined),
      property,
    );
  c.date('issued', text(work.datePublished) ?? text(work.dateCreated), 'datePublished');
  const publisher = text(work.publisher);
  const container = text(periodical?.name) ?? text(book?.name) ?? text(parts[0]?.name);
  if (container) c.text('container-title', container, 'isPartOf');
  else if (type === 'article-newspaper' || type === 'post-weblog' || type === 'article-magazine')
    c.text('container-title', publisher, 'publisher');
  if (type !== 'article-newspaper') c.text('publisher', publisher ?? text(book?.publisher), 'publisher');
  c.text('volume', text(work.volumeNumber) ?? text(part('PublicationVolume')?.volumeNumber), 'volumeNumber');
  c.text('issue', text(work.issueNumber) ?? text(part('PublicationIssue')?.issueNumber), 'issueNumber');
  c.text(
    'page',
    pageRange(text(work.pagination)) ?? pageRange(text(work.pageStart), text(work.pageEnd)),
    'pagination',
  );
  c.text('ISSN', text(periodical?.issn), 'issn');
  c.text('ISBN', text(work.isbn) ?? text(book?.isbn), 'isbn');
  c.text('edition', text(work.bookEdition), 'bookEdition');
  c.text(
    'version',
    text(work.softwareVersion) ?? (type === 'dataset' ? text(work.version) : undefined),
    'version',
  );
  c.text('language', text(work.inLanguage), 'inLanguage');
  if (type !== 'webpage')
    c.text('abstract', textOnly(text(work.abstract) ?? text(work.description) ?? ''), 'description');
  const identifiers = [...list(work.identifier), ...list(work.sameAs), work['@id']].map((i) =>
    isNode(i) ? (text(i.value) ?? text(i['@id'])) : text(i),
  );
  c.text('DOI', identifiers.map((i) => findDoi(i ?? '')).find(Boolean), 'identifier');
  c.text('URL', text(work.url), 'url');
  return c.found;
}
