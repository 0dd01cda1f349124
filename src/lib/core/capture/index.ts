import type { SourceRecord } from '../source';
import type { Candidate } from './candidate';
import { dublinCore } from './extractors/dublin-core';
import { highwire } from './extractors/highwire';
import { html } from './extractors/html';
import { jsonLd } from './extractors/json-ld';
import { openGraph } from './extractors/open-graph';
import { reconcile } from './reconcile';

export { fromCslJson } from './registry';
export { reconcile } from './reconcile';
export type { Candidate } from './candidate';

/** Everything the extractors find on a page, in no order of trust. */
export function candidatesOf(doc: Document, address: string): Candidate[] {
  return [...highwire(doc), ...dublinCore(doc), ...jsonLd(doc), ...openGraph(doc), ...html(doc, address)];
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
