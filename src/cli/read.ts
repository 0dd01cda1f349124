import { basename } from 'node:path';
import { reconcile, recordOf } from '../lib/core/capture';
import { fromLeaves, printedLabels, type DocumentData, type Leaf } from '../lib/core/documents';
import {
  alternativesOf,
  makeCitekey,
  originOf,
  tidiedRecord,
  toCsl,
  type SourceRecord,
} from '../lib/core/source';
import { readers, type Readers } from '../lib/reading/apart';
import { sniffBytes } from '../lib/reading/sniff';
import { bytesOf } from './files';
import { Unusable } from './unusable';

/** Most scanned leaves whose text is recognised. */
const MOST_RECOGNISED = 5;

/** One work as it is printed: its CSL-JSON, and by field where the value came from and what else was seen. */
export interface ReadWork {
  source: object;
  origins: Record<string, { kind: string; why?: string }>;
  alternatives: Record<string, { kind: string; value: unknown; why?: string }[]>;
}

function shown(given: SourceRecord): ReadWork {
  const { record } = tidiedRecord(given);
  const origins: ReadWork['origins'] = {};
  const alternatives: ReadWork['alternatives'] = {};
  for (const field of Object.keys(record.retexa.origins)) {
    const origin = originOf(record, field);
    if (origin) origins[field] = { kind: origin.kind, ...(origin.why ? { why: origin.why } : {}) };
    const others = alternativesOf(record, field).map(({ kind, value, why }) => ({
      kind,
      value,
      ...(why ? { why } : {}),
    }));
    if (others.length) alternatives[field] = others;
  }
  return {
    source: toCsl(
      makeCitekey(record, () => false),
      record,
    ),
    origins,
    alternatives,
  };
}

async function fromPage(
  { read }: Readers,
  bytes: Uint8Array,
  address: string | undefined,
  now: string,
): Promise<ReadWork & { list?: ReadWork[] }> {
  const base = address ?? 'https://address-not-known.invalid/';
  const { candidates, list } = await read({ task: 'page', bytes, contentType: '', address: base });
  const record = address
    ? recordOf(candidates, address, now)
    : reconcile(
        candidates.filter((c) => !(typeof c.value === 'string' && c.value.startsWith(base))),
        undefined,
        now,
      );
  return { ...shown(record), ...(list.length ? { list: list.map((w) => shown(w.record)) } : {}) };
}

function fromLeavesOf(
  leaves: Leaf[],
  given: string[] | null,
  data: DocumentData,
  address: string | undefined,
  now: string,
) {
  const candidates = fromLeaves(leaves, printedLabels(leaves, given), data);
  return shown(address ? recordOf(candidates, address, now) : reconcile(candidates, undefined, now));
}

async function fromPdf(
  { read }: Readers,
  file: string,
  bytes: Uint8Array,
  address: string | undefined,
  now: string,
): Promise<ReadWork> {
  const { leaves, labels, data, scanned } = await read({ task: 'pdf', bytes });
  for (const leaf of scanned.slice(0, MOST_RECOGNISED))
    leaves[leaf] = (await read({ task: 'scan', path: file, leaf })).leaf;
  return fromLeavesOf(leaves, labels, data, address, now);
}

/**
 * Reads a page, a PDF or a picture of a page. Gives one object: `source` (CSL-JSON), `origins` and `alternatives` by
 * field, and `list` when the page is a list of works. `entry` is what the processes that read run. Throws `Unusable` with
 * words for the person.
 */
export async function read(file: string, address: string | undefined, entry: string): Promise<object> {
  if (address !== undefined && (!URL.canParse(address) || !/^https?:/.test(address)))
    throw new Unusable(`--address: “${address}” is no http or https address.`);
  const bytes = bytesOf(file);
  if (bytes.length === 0) throw new Unusable(`${basename(file)} is empty.`);
  const now = new Date().toISOString();
  const kind = sniffBytes(bytes);
  const apart = readers(entry);
  try {
    if (kind === 'pdf') return await fromPdf(apart, file, bytes, address, now);
    if (kind.startsWith('image/')) {
      const { leaf } = await apart.read({ task: 'scan', bytes });
      return fromLeavesOf([leaf], null, { info: {}, xmp: {} }, address, now);
    }
    if (
      kind === 'html' ||
      (kind === 'text' && /<\w+[^>]*>/.test(new TextDecoder().decode(bytes.subarray(0, 4_096))))
    )
      return await fromPage(apart, bytes, address, now);
  } catch (error) {
    throw new Unusable(`${basename(file)}: ${(error as Error).message}`);
  } finally {
    await apart.close();
  }
  throw new Unusable(`${basename(file)} is neither a page, a PDF nor a picture of a page.`);
}
