import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { readDocument, reconcile, recordOf } from '../lib/core/capture';
import { fromLeaves, printedLabels, type DocumentData, type Leaf } from '../lib/core/documents';
import { alternativesOf, makeCitekey, originOf, toCsl, type SourceRecord } from '../lib/core/source';
import { openPage } from '../lib/reading/page';
import { drawLeaf, readPdfText } from '../lib/reading/pdf';
import { endRecogniser, recognise } from '../lib/reading/scan';
import { sniffBytes } from '../lib/reading/sniff';
import { Unusable } from './unusable';

/** Most scanned leaves whose text is recognised. */
const MOST_RECOGNISED = 5;

/** One work as it is printed: its CSL-JSON, and by field where the value came from and what else was seen. */
export interface ReadWork {
  source: object;
  origins: Record<string, { kind: string; why?: string }>;
  alternatives: Record<string, { kind: string; value: unknown; why?: string }[]>;
}

function shown(record: SourceRecord): ReadWork {
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

function fromPage(
  bytes: Uint8Array,
  address: string | undefined,
  now: string,
): ReadWork & { list?: ReadWork[] } {
  const base = address ?? 'https://address-not-known.invalid/';
  const document = openPage(bytes, 'text/html', base);
  const { candidates, list } = readDocument(document, base);
  const record = address
    ? recordOf(candidates, address, now)
    : reconcile(
        candidates.filter((c) => !(typeof c.value === 'string' && c.value.startsWith(base))),
        undefined,
        now,
      );
  return { ...shown(record), ...(list.length ? { list: list.map((w) => shown(w.record)) } : {}) };
}

async function fromLeavesOf(
  leaves: Leaf[],
  given: string[] | null,
  data: DocumentData,
  address: string | undefined,
  now: string,
) {
  const candidates = fromLeaves(leaves, printedLabels(leaves, given), data);
  return shown(address ? recordOf(candidates, address, now) : reconcile(candidates, undefined, now));
}

async function fromPdf(bytes: Uint8Array, address: string | undefined, now: string): Promise<ReadWork> {
  const { leaves, labels, data, scanned } = await readPdfText(bytes);
  for (const leaf of scanned.slice(0, MOST_RECOGNISED))
    leaves[leaf] = (await recognise(await drawLeaf(bytes, leaf + 1, 2_200))).leaf;
  return fromLeavesOf(leaves, labels, data, address, now);
}

/**
 * Reads a page, a PDF or a picture of a page. Gives one object: `source` (CSL-JSON), `origins` and `alternatives` by
 * field, and `list` when the page is a list of works. Throws `Unusable` with words for the person.
 */
export async function read(file: string, address: string | undefined): Promise<object> {
  if (address !== undefined && (!URL.canParse(address) || !/^https?:/.test(address)))
    throw new Unusable(`--address: “${address}” is no http or https address.`);
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Unusable(
      `${file}: ${code === 'ENOENT' ? 'there is no such file.' : code === 'EISDIR' ? 'this is a folder.' : (error as Error).message}`,
    );
  }
  if (bytes.length === 0) throw new Unusable(`${basename(file)} is empty.`);
  const now = new Date().toISOString();
  const kind = sniffBytes(bytes);
  try {
    if (kind === 'pdf') return await fromPdf(bytes, address, now);
    if (kind.startsWith('image/'))
      return await fromLeavesOf([(await recognise(bytes)).leaf], null, { info: {}, xmp: {} }, address, now);
    if (
      kind === 'html' ||
      (kind === 'text' && /<\w+[^>]*>/.test(new TextDecoder().decode(bytes.subarray(0, 4_096))))
    )
      return fromPage(bytes, address, now);
  } catch (error) {
    throw new Unusable(`${basename(file)}: ${(error as Error).message}`);
  } finally {
    await endRecogniser();
  }
  throw new Unusable(`${basename(file)} is neither a page, a PDF nor a picture of a page.`);
}
