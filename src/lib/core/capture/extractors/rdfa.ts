import { squash } from '../../text';
import type { Candidate } from '../candidate';
import { addTo, fromSchemaNodes, type SchemaNode } from '../schema-org';

const SCHEMA = /^https?:\/\/schema\.org\/?/;
/** Prefixes of the RDFa initial context that pages use without declaring them. Source: W3C RDFa Core Initial Context. */
const INITIAL: Record<string, string> = {
  schema: 'http://schema.org/',
  dc: 'http://purl.org/dc/terms/',
  dcterms: 'http://purl.org/dc/terms/',
  dc11: 'http://purl.org/dc/elements/1.1/',
  bibo: 'http://purl.org/ontology/bibo/',
  foaf: 'http://xmlns.com/foaf/0.1/',
  og: 'http://ogp.me/ns#',
};
/** Terms of Dublin Core, BIBO and FOAF to the schema.org properties that say the same. */
const TERMS: [RegExp, Record<string, string>][] = [
  [
    /purl\.org\/dc\//,
    {
      title: 'name',
      creator: 'author',
      contributor: 'contributor',
      issued: 'datePublished',
      date: 'datePublished',
      publisher: 'publisher',
      isPartOf: 'isPartOf',
      language: 'inLanguage',
      identifier: 'identifier',
      abstract: 'abstract',
      description: 'description',
    },
  ],
  [
    /purl\.org\/ontology\/bibo\//,
    {
      volume: 'volumeNumber',
      issue: 'issueNumber',
      pages: 'pagination',
      pageStart: 'pageStart',
      pageEnd: 'pageEnd',
      doi: 'identifier',
      isbn: 'isbn',
      isbn13: 'isbn',
      isbn10: 'isbn',
      issn: 'issn',
      edition: 'bookEdition',
      editor: 'editor',
      translator: 'translator',
    },
  ],
  [
    /xmlns\.com\/foaf\//,
    { name: 'name', familyName: 'familyName', givenName: 'givenName', family_name: 'familyName' },
  ],
];
/** Classes of BIBO to schema.org types. Source: Bibliographic Ontology 1.3. */
const CLASSES: Record<string, string> = {
  AcademicArticle: 'ScholarlyArticle', Article: 'Article', Book: 'Book', EditedBook: 'Book', BookSection: 'Chapter', Chapter: 'Chapter',
  Thesis: 'Thesis', Report: 'Report', Journal: 'Periodical', Issue: 'PublicationIssue', Newspaper: 'Newspaper', Magazine: 'Periodical',
  Film: 'Movie', Map: 'Map', Manuscript: 'Manuscript', Webpage: 'WebPage', Image: 'Photograph', Person: 'Person', Organization: 'Organization',
}; // prettier-ignore

interface Scope {
  vocab: string;
  prefixes: Record<string, string>;
}

function scopeOf(element: Element, outer: Scope): Scope {
  const declared = [...(element.getAttribute('prefix') ?? '').matchAll(/([\w-]+):\s+(\S+)/g)].map((m) => [
    m[1]!.toLowerCase(),
    m[2]!,
  ]);
  const older = [...element.attributes]
    .filter((a) => a.name.startsWith('xmlns:'))
    .map((a) => [a.name.slice(6).toLowerCase(), a.value]);
  const vocab = element.getAttribute('vocab');
  if (!declared.length && !older.length && vocab === null) return outer;
  return {
    vocab: vocab ?? outer.vocab,
    prefixes: {
      ...outer.prefixes,
      ...(Object.fromEntries([...older, ...declared]) as Record<string, string>),
    },
  };
}

function iriOf(term: string, scope: Scope): string {
  const m = /^([\w-]+):(.+)$/.exec(term);
  if (!m) return scope.vocab ? scope.vocab.replace(/\/?$/, '/') + term : '';
  const base = scope.prefixes[m[1]!.toLowerCase()];
  return base ? base + m[2]! : term;
}

function propertyOf(iri: string): string | undefined {
  if (SCHEMA.test(iri)) return iri.replace(SCHEMA, '');
  const local = /[^/#]+$/.exec(iri)?.[0] ?? '';
  return TERMS.find(([pattern]) => pattern.test(iri))?.[1][local];
}

function typeOf(iri: string): string | undefined {
  if (SCHEMA.test(iri)) return iri.replace(SCHEMA, '');
  return /ontology\/bibo|foaf/.test(iri) ? CLASSES[/[^/#]+$/.exec(iri)?.[0] ?? ''] : undefined;
}

/**
 * The items of a page's RDFa, in schema.org's words. Reads RDFa Lite 1.1 (`vocab`, `typeof`, `property`, `resource`,
 * `prefix`), older `xmlns:` prefixes, and Dublin Core, BIBO and FOAF terms beside schema.org's own.
 */
export function rdfaNodes(doc: Document): SchemaNode[] {
  const top: SchemaNode[] = [];
  const walk = (element: Element, outer: Scope, subject: SchemaNode | undefined, depth: number): void => {
    if (depth > 120 || top.length > 500) return;
    const scope = scopeOf(element, outer);
    let inner = subject;
    const properties = (element.getAttribute('property') ?? '')
      .split(/\s+/)
      .filter(Boolean)
      .map((p) => propertyOf(iriOf(p, scope)))
      .filter((p): p is string => p !== undefined);
    if (element.hasAttribute('typeof')) {
      const types = (element.getAttribute('typeof') ?? '')
        .split(/\s+/)
        .map((t) => typeOf(iriOf(t, scope)))
        .filter(Boolean);
      const node: SchemaNode = { '@type': types };
      const id =
        element.getAttribute('resource') ??
        element.getAttribute('about') ??
        (properties.length ? null : element.getAttribute('href'));
      if (id) node['@id'] = id;
      if (properties.length && subject) properties.forEach((p) => addTo(subject, p, node));
      else if (types.length) top.push(node);
      inner = node;
    } else if (properties.length && subject) {
      const named = properties.some((p) => /^(?:author|creator|editor|publisher|isPartOf|name)$/.test(p));
      const link =
        element.getAttribute('resource') ?? element.getAttribute('href') ?? element.getAttribute('src');
      const value =
        element.getAttribute('content') ??
        element.getAttribute('datetime') ??
        (named || !link ? squash(element.textContent ?? '') : link);
      properties.forEach((p) => addTo(subject, p, value));
    }
    for (let child = element.firstElementChild; child; child = child.nextElementSibling)
      walk(child, scope, inner, depth + 1);
  };
  if (doc.documentElement) walk(doc.documentElement, { vocab: '', prefixes: INITIAL }, undefined, 0);
  return top;
}

/** Reads RDFa: schema.org, Dublin Core with BIBO. */
export const rdfa = (doc: Document, address: string): Candidate[] =>
  fromSchemaNodes(rdfaNodes(doc), 'rdfa', address);
