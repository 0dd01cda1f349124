import type { SourceRecord } from '../source';
import type { Candidate } from './candidate';
import { coins } from './extractors/coins';
import { dublinCore } from './extractors/dublin-core';
import { highwire } from './extractors/highwire';
import { html } from './extractors/html';
import { jsonLd } from './extractors/json-ld';
import { microdata } from './extractors/microdata';
import { openGraph } from './extractors/open-graph';
import { prism } from './extractors/prism';
import { rdfa } from './extractors/rdfa';
import { citeAsDoi, linkedFiles, linksOf, pdfOf, type LinkedFile } from './links';
import { worksListed, type ListedWork } from './lists';
import { reconcile } from './reconcile';

export { fromCslJson } from './registry';
export { fromRecord } from './from-record';
export { fromContextObject } from './extractors/coins';
export { reconcile } from './reconcile';
export { joinRegistry, sameWork } from './same-work';
export { personName, peopleOf } from './people';
export { linksOf, parseLinkHeader, type LinkedFile, type TypedLink } from './links';
export type { ListedWork } from './lists';
export { collector, pageRange, type Candidate } from './candidate';

/** The extractors that read a page's document, each by the vocabulary it reads. */
const EXTRACTORS: ((doc: Document, address: string) => Candidate[])[] = [
  highwire,
  prism,
  jsonLd,
  microdata,
  rdfa,
  coins,
  dublinCore,
  openGraph,
  html,
];

/** Everything the extractors find on a page, in no order of trust. */
export function candidatesOf(doc: Document, address: string): Candidate[] {
  return EXTRACTORS.flatMap((extract) => extract(doc, address));
}

/** All a page says: of its own work, of the works it lists, and of the files that belong to it. */
export interface PageReading {
  candidates: Candidate[];
  /** The works the page lists, when it is a list and not a work of its own. */
  list: ListedWork[];
  /** Citation files the page leads to. */
  files: LinkedFile[];
  /** The PDF of the page's work. */
  pdf?: string;
}

/** Reads a page. `linkHeader` is its Link header, when it came with one. */
export function readDocument(doc: Document, address: string, linkHeader = ''): PageReading {
  const candidates = candidatesOf(doc, address);
  const links = linksOf(doc, address, linkHeader);
  const doi = citeAsDoi(links);
  if (doi) candidates.push({ field: 'DOI', value: doi, kind: 'linked', note: 'rel=cite-as' });
  const list = worksListed(doc, address, candidates, links);
  const pdf = pdfOf(doc, address, links);
  return {
    candidates,
    list,
    files: list.length ? [] : linkedFiles(doc, address, links),
    ...(pdf ? { pdf } : {}),
  };
}

/**
 * One record from a page and whatever a registry said of it. `now` is UTC ISO 8601; its date becomes the access
 * date. The address of the page is one candidate for `URL`; a better one that the page names comes before it.
 */
export function recordOf(candidates: Candidate[], address: string, now: string): SourceRecord {
  const own: Candidate = { field: 'URL', value: address, kind: 'html', note: 'the address captured' };
  const record = reconcile([...candidates, own], address, now);
  const [year, month, day] = now.slice(0, 10).split('-').map(Number) as [number, number, number];
  const accessed = { 'date-parts': [[year, month, day]] };
  record.retexa.origins.accessed = [
    { kind: 'html', value: accessed, at: now, address, why: 'the day of capture' },
  ];
  return { ...record, accessed };
}
