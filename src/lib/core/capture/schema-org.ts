import {
  findDoi,
  findIsbn,
  orcidText,
  type CslName,
  type CslType,
  type NameVariable,
  type OriginKind,
} from '../source';
import { collector, orcidsWith, pageRange, textOnly, type Candidate } from './candidate';
import { personName, peopleOf } from './people';

/** A schema.org item, whatever syntax it was written in: property names without prefix, `@type`, `@id`. */
export type SchemaNode = Record<string, unknown>;

/** Adds a value to a property of an item, which becomes a list when it has several. Names come from pages and may be any. */
export function addTo(node: SchemaNode, name: string, value: unknown): void {
  if (name === '__proto__') return;
  const before = Object.hasOwn(node, name) ? node[name] : undefined;
  if (Array.isArray(before)) before.push(value);
  else node[name] = before === undefined ? value : [before, value];
}

/** schema.org types that are works, to CSL types, surest first. Source: schema.org, CreativeWork and its subtypes. */
const WORKS: [string, CslType][] = [
  ['ScholarlyArticle', 'article-journal'],
  ['MedicalScholarlyArticle', 'article-journal'],
  ['Thesis', 'thesis'],
  ['Chapter', 'chapter'],
  ['Book', 'book'],
  ['Audiobook', 'book'],
  ['Report', 'report'],
  ['Dataset', 'dataset'],
  ['DataDownload', 'dataset'],
  ['NewsArticle', 'article-newspaper'],
  ['ReportageNewsArticle', 'article-newspaper'],
  ['OpinionNewsArticle', 'article-newspaper'],
  ['AnalysisNewsArticle', 'article-newspaper'],
  ['BackgroundNewsArticle', 'article-newspaper'],
  ['BlogPosting', 'post-weblog'],
  ['LiveBlogPosting', 'post-weblog'],
  ['SoftwareSourceCode', 'software'],
  ['SoftwareApplication', 'software'],
  ['WebApplication', 'software'],
  ['MobileApplication', 'software'],
  ['Movie', 'motion_picture'],
  ['TVEpisode', 'broadcast'],
  ['RadioEpisode', 'broadcast'],
  ['PodcastEpisode', 'broadcast'],
  ['MusicRecording', 'song'],
  ['MusicAlbum', 'song'],
  ['SheetMusic', 'musical_score'],
  ['Legislation', 'legislation'],
  ['Manuscript', 'manuscript'],
  ['ArchiveComponent', 'manuscript'],
  ['Map', 'map'],
  ['Photograph', 'graphic'],
  ['VisualArtwork', 'graphic'],
  ['Painting', 'graphic'],
  ['PresentationDigitalDocument', 'speech'],
  ['CriticReview', 'review'],
  ['Review', 'review'],
  ['DiscussionForumPosting', 'post'],
  ['SocialMediaPosting', 'post'],
  ['TechArticle', 'webpage'],
  ['Article', 'webpage'],
  ['VideoObject', 'motion_picture'],
  ['CreativeWork', 'document'],
  ['WebPage', 'webpage'],
  ['AboutPage', 'webpage'],
  ['FAQPage', 'webpage'],
];

export const listOf = (value: unknown): unknown[] =>
  value === undefined || value === null ? [] : Array.isArray(value) ? value : [value];
export const isNode = (value: unknown): value is SchemaNode =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The schema.org types of a node, without their prefix. */
export const typesOf = (node: SchemaNode): string[] =>
  listOf(node['@type']).map((t) => String(t).replace(/^(?:https?:\/\/schema\.org\/|schema:)/, ''));

/** A value as text: the first of several, a node by its name or value. */
export const textOfValue = (value: unknown): string | undefined => {
  const first = listOf(value)[0];
  if (typeof first === 'string' || typeof first === 'number') return String(first);
  return isNode(first) ? textOfValue(first.name ?? first['@value'] ?? first.value) : undefined;
};
const text = textOfValue;

function nameOf(value: unknown): CslName[] {
  if (typeof value === 'string') return /^https?:/.test(value) ? [] : peopleOf([value]);
  if (!isNode(value)) return [];
  if (typesOf(value).some((t) => /Organization|Corporation|Library|Museum|Project|Consortium/.test(t))) {
    const literal = text(value.legalName) ?? text(value.name);
    return literal ? [{ literal }] : [];
  }
  const [family, given] = [text(value.familyName), text(value.givenName)];
  const suffix = text(value.honorificSuffix);
  const built = family ? (given ? `${family}, ${given}` : family) : (text(value.name) ?? '');
  const name = personName(built);
  return name ? [suffix && /^(?:jr|sr|i+|iv)\.?$/i.test(suffix) ? { ...name, suffix } : name] : [];
}

/** What a node of a person says that may be an ORCID: what it is known by elsewhere. */
const orcidOfNode = (value: unknown): string | undefined =>
  isNode(value)
    ? [value['@id'], value.sameAs, value.identifier, value.url]
        .flatMap(listOf)
        .map((one) => (isNode(one) ? text(one.value ?? one['@id']) : text(one)))
        .find((one) => one !== undefined && one.length < 200 && orcidText(one) !== undefined)
    : undefined;

/** Nodes with what is said of the same `@id` elsewhere, so that references can be followed. */
type ById = Map<string, SchemaNode>;
const whole = (value: unknown, byId: ById): SchemaNode | undefined => {
  if (typeof value === 'string') return byId.get(value);
  return isNode(value) ? { ...byId.get(String(value['@id'])), ...value } : undefined;
};

/** The chain of `isPartOf` nodes above a work, nearest first. */
function partsOf(node: SchemaNode, byId: ById): SchemaNode[] {
  const chain: SchemaNode[] = [];
  const seen = new Set<unknown>();
  let level: unknown[] = [...listOf(node.isPartOf), ...listOf(node.partOfSeries)];
  while (level.length > 0 && chain.length < 12) {
    const nodes = level
      .map((v) => (typeof v === 'string' && !byId.has(v) ? { name: v } : whole(v, byId)))
      .filter((n): n is SchemaNode => n !== undefined && !seen.has(n['@id'] ?? n));
    nodes.forEach((n) => seen.add(n['@id'] ?? n));
    chain.push(...nodes);
    level = nodes.flatMap((n) => listOf(n.isPartOf));
  }
  return chain.filter((n) => !/^https?:/.test(text(n.name) ?? ''));
}

const NAMES: [string, NameVariable][] = [
  ['author', 'author'],
  ['creator', 'author'],
  ['editor', 'editor'],
  ['translator', 'translator'],
  ['illustrator', 'illustrator'],
  ['director', 'director'],
  ['producer', 'producer'],
  ['composer', 'composer'],
  ['byArtist', 'performer'],
];

const sameAddress = (a: string, b: string) => {
  const bare = (u: string) => u.replace(/^https?:\/\/(?:www\.)?/, '').replace(/[#?].*$|\/$/g, '');
  return bare(a) === bare(b);
};
const addressesOf = (node: SchemaNode): string[] =>
  [node.url, node['@id'], node.mainEntityOfPage].flatMap((v) =>
    listOf(v).map((x) => (isNode(x) ? String(x['@id'] ?? x.url ?? '') : String(x ?? ''))),
  );

/** The works among some items, each with its CSL type, surest first; items that only describe the site are not works. */
export function worksAmong(nodes: SchemaNode[]): { node: SchemaNode; type: CslType }[] {
  return WORKS.flatMap(([name, type]) =>
    nodes.filter((n) => typesOf(n).includes(name)).map((node) => ({ node, type })),
  ).filter(({ node }, i, all) => all.findIndex((w) => w.node === node) === i);
}

/** The CSL type of a work from what it is part of and how it calls itself, beyond its own schema.org type. */
function refined(type: CslType, work: SchemaNode, parts: SchemaNode[]): CslType {
  const within = parts.flatMap(typesOf);
  const container = parts.map((p) => text(p.name) ?? '').join(' ');
  const genre = [
    work.genre,
    work.additionalType,
    work.articleSection,
    work.creativeWorkStatus,
    work.learningResourceType,
  ]
    .map((v) => text(v) ?? '')
    .join(' ');
  const general = type === 'webpage' && typesOf(work).some((t) => t === 'Article' || t === 'TechArticle');
  if (/encyclop|lexikon|enzyklop/i.test(container) && (general || type === 'article-journal'))
    return 'entry-encyclopedia';
  if (/dictionar|wörterbuch/i.test(container) && general) return 'entry-dictionary';
  if (type === 'article-journal' || general) {
    if (/preprint|working paper/i.test(genre)) return 'article';
    if (/\bproceedings?\b|conference|symposium|workshop/i.test(`${container} ${genre}`))
      return 'paper-conference';
    if (/\bbook review\b/i.test(genre)) return 'review-book';
  }
  if (type === 'article-journal' && within.includes('Book')) return 'chapter';
  if (type === 'review') {
    const item = listOf(work.itemReviewed).find(isNode);
    return item && typesOf(item).includes('Book') ? 'review-book' : 'review';
  }
  if (type === 'book' && within.includes('Book') && work.pageStart) return 'chapter';
  if (type === 'article-newspaper' && within.some((t) => /Magazine/.test(t))) return 'article-magazine';
  if (general) {
    if (within.includes('Blog')) return 'post-weblog';
    if (within.includes('Newspaper')) return 'article-newspaper';
    if (within.some((t) => /Periodical|Magazine|PublicationIssue/.test(t)))
      return findDoi(JSON.stringify(work.identifier ?? work.sameAs ?? work['@id'] ?? ''))
        ? 'article-journal'
        : 'article-magazine';
    if (listOf(work.publisher).some((p) => isNode(p) && typesOf(p).includes('NewsMediaOrganization')))
      return 'article-newspaper';
  }
  return type;
}

/**
 * The candidates of one work. `isPartOf` leads through issue, volume and periodical. Properties: schema.org/Article,
 * ScholarlyArticle, PublicationIssue, PublicationVolume, Book, Thesis, Movie, SoftwareApplication.
 */
export function fromWork(
  work: SchemaNode,
  csl: CslType,
  kind: OriginKind,
  byId: ById = new Map(),
): Candidate[] {
  const c = collector(kind);
  const parts = partsOf(work, byId);
  const type = refined(csl, work, parts);
  const part = (name: string) => parts.find((p) => typesOf(p).includes(name));
  const periodical = parts.find((p) => typesOf(p).some((t) => /Periodical|Newspaper|Magazine|Blog$/.test(t)));
  const book = parts.find((p) => typesOf(p).includes('Book'));
  const series = parts.find((p) => typesOf(p).some((t) => /Series$/.test(t)));
  c.type(type, `@type ${typesOf(work).join(', ')}`);
  c.text(
    'title',
    textOnly(text(work.headline) ?? text(work.name) ?? ''),
    work.headline ? 'headline' : 'name',
  );
  for (const [property, role] of NAMES) {
    if (property === 'creator' && work.author) continue;
    const named = listOf(work[property]).flatMap((v) => {
      const node = whole(v, byId) ?? v;
      return nameOf(node).map((name): [CslName, unknown] => [name, orcidOfNode(node)]);
    });
    c.names(
      role,
      named.map(([name]) => name),
      property,
      orcidsWith(named),
    );
  }
  if (type === 'thesis' && !work.author)
    c.names('author', listOf(work.contributor).flatMap(nameOf), 'contributor');
  if (book && !work.editor)
    c.names(
      'editor',
      listOf(book.editor).flatMap((v) => nameOf(whole(v, byId) ?? v)),
      'isPartOf editor',
    );
  c.date(
    'issued',
    text(work.datePublished) ??
      text(part('PublicationIssue')?.datePublished) ??
      text(book?.datePublished) ??
      text(work.dateCreated),
    'datePublished',
  );
  const publisher = text(whole(listOf(work.publisher)[0], byId) ?? work.publisher);
  const own = series && type !== 'broadcast' ? undefined : text(series?.name);
  const outer = parts.find(
    (p) =>
      !typesOf(p).some((t) => /^(?:PublicationIssue|PublicationVolume|WebSite|WebPage|.*Series)$/.test(t)),
  );
  const container = text(periodical?.name) ?? text(book?.name) ?? own ?? text(outer?.name);
  const site = text(parts.find((p) => typesOf(p).includes('WebSite'))?.name);
  if (container) c.text('container-title', container, 'isPartOf');
  else if (
    type === 'article-newspaper' ||
    type === 'post-weblog' ||
    type === 'article-magazine' ||
    (type === 'webpage' && !site)
  )
    c.text('container-title', publisher, 'publisher');
  else if (type === 'webpage') c.text('container-title', site, 'isPartOf');
  if (series && type !== 'broadcast') c.text('collection-title', text(series.name), 'isPartOf');
  const institution = text(work.sourceOrganization) ?? text(work.inSupportOf && work.provider);
  if (!['article-newspaper', 'post-weblog', 'article-magazine', 'webpage'].includes(type))
    c.text(
      'publisher',
      (type === 'thesis' ? institution : undefined) ??
        publisher ??
        text(book?.publisher) ??
        text(periodical?.publisher) ??
        text(work.productionCompany) ??
        institution,
      'publisher',
    );
  if (type === 'thesis') c.text('genre', text(work.inSupportOf), 'inSupportOf');
  c.text(
    'volume',
    text(work.volumeNumber) ??
      text(part('PublicationVolume')?.volumeNumber) ??
      text(periodical?.volumeNumber),
    'volumeNumber',
  );
  c.text(
    'issue',
    text(work.issueNumber) ?? text(part('PublicationIssue')?.issueNumber) ?? text(periodical?.issueNumber),
    'issueNumber',
  );
  c.text(
    'page',
    pageRange(text(work.pagination)) ?? pageRange(text(work.pageStart), text(work.pageEnd)),
    'pagination',
  );
  c.text('ISSN', text(periodical?.issn) ?? text(work.issn), 'issn');
  c.text('ISBN', findIsbn(text(work.isbn) ?? text(book?.isbn) ?? ''), 'isbn');
  c.text('edition', text(work.bookEdition), 'bookEdition');
  c.text(
    'number-of-pages',
    type === 'book' || type === 'thesis' || type === 'report' ? text(work.numberOfPages) : undefined,
    'numberOfPages',
  );
  if (type === 'report') c.text('number', text(work.reportNumber), 'reportNumber');
  if (type === 'broadcast') c.text('number', text(work.episodeNumber), 'episodeNumber');
  if (type === 'legislation') c.text('number', text(work.legislationIdentifier), 'legislationIdentifier');
  c.text(
    'version',
    text(work.softwareVersion) ??
      (type === 'dataset' || type === 'software' ? text(work.version) : undefined),
    'version',
  );
  c.text('language', text(work.inLanguage), 'inLanguage');
  if (type !== 'webpage')
    c.text('abstract', textOnly(text(work.abstract) ?? text(work.description) ?? ''), 'description');
  c.text(
    'keyword',
    listOf(work.keywords)
      .map((k) => text(k) ?? '')
      .filter(Boolean)
      .join(', '),
    'keywords',
  );
  const identifiers = [...listOf(work.identifier), ...listOf(work.sameAs), work['@id'], work.doi].map((i) =>
    isNode(i) ? (text(i.value) ?? text(i['@id'])) : text(i),
  );
  c.text('DOI', identifiers.map((i) => findDoi(i ?? '')).find(Boolean), 'identifier');
  c.text('URL', text(work.url), 'url');
  return c.found;
}

/**
 * Reads the work a page is about from its schema.org items: the one the page's address belongs to, else the one of
 * the surest type. The site's own items (WebSite, Organization, BreadcrumbList) are never taken for it, nor one of
 * several equal works none of which belongs to the page: that is a list.
 */
export function fromSchemaNodes(nodes: SchemaNode[], kind: OriginKind, address: string): Candidate[] {
  const byId: ById = new Map(nodes.filter((n) => n['@id']).map((n) => [String(n['@id']), n]));
  const works = worksAmong(nodes);
  const own = works.filter(
    ({ node, type }) => type !== 'webpage' && addressesOf(node).some((a) => sameAddress(a, address)),
  );
  const best = own[0] ?? works[0];
  if (!best) return [];
  const alike = works.filter((w) => w.type === best.type && w.type !== 'webpage');
  if (!own[0] && alike.length >= 3) return [];
  return fromWork(best.node, best.type, kind, byId);
}
