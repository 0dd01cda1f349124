import { fromCslJson, reconcile, type Candidate } from '../../core/capture';
import type { SourceRecord } from '../../core/source';
import { config } from '../config';
import { now } from '../db/ids';
import { fetchPolitely } from '../http/polite';
import { Refusal } from '../access/refusal';
import { read } from '../workers/pools';

const RECORD_BYTES = 2 * 1024 * 1024;
const CSL_JSON = 'application/vnd.citationstyles.csl+json';

/** What a registry answered: its record as candidates, and the address that was asked. */
export interface Answer {
  candidates: Candidate[];
  address: string;
}

/** Answers of the last day, so that a registry is not asked the same thing twice in a burst of captures. */
const answers = new Map<string, { at: number; answer: unknown }>();
const DAY_MS = 24 * 3600 * 1000;
const MOST = 500;

async function remembered<T>(key: string, ask: () => Promise<T | undefined>): Promise<T | undefined> {
  const known = answers.get(key);
  if (known && Date.now() - known.at < DAY_MS) return known.answer as T;
  const answer = await ask();
  if (answer !== undefined) {
    answers.set(key, { at: Date.now(), answer });
    if (answers.size > MOST) answers.delete(answers.keys().next().value!);
  }
  return answer;
}

/** Fetches from a registry; nothing when it does not know, a Refusal when it cannot be asked. */
async function ask(
  name: string,
  address: string,
  accept: string,
  signal: AbortSignal,
): Promise<string | undefined> {
  const fetched = await fetchPolitely(address, { accept, maxBytes: RECORD_BYTES, signal });
  if (fetched.status === 404 || fetched.status === 410) return undefined;
  if (fetched.status >= 400)
    throw new Refusal(
      502,
      `${name} answered with an error (${fetched.status}). Try again later, or start by hand.`,
    );
  return fetched.bytes.toString('utf8');
}

function json(name: string, text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    const first: unknown = Array.isArray(value) ? value[0] : value;
    if (typeof first === 'object' && first !== null) return first as Record<string, unknown>;
  } catch {
    // The words below say it.
  }
  throw new Refusal(502, `The answer of ${name} could not be read. Try again later, or start by hand.`);
}

/** Asks the DOI registry by content negotiation (DOI Handbook; RFC 9110, 12). Nothing when it does not know the DOI. */
export function askByDoi(doi: string, signal: AbortSignal): Promise<Answer | undefined> {
  const address = `${config.doiRegistry}/${encodeURIComponent(doi).replace(/%2F/g, '/')}`;
  return remembered(address, async () => {
    const text = await ask('the DOI registry', address, CSL_JSON, signal);
    return text === undefined
      ? undefined
      : { candidates: fromCslJson(json('the DOI registry', text), 'registry'), address };
  });
}

/** Asks for an article by its PubMed id. */
export function askByPmid(pmid: string, signal: AbortSignal): Promise<Answer | undefined> {
  const address = config.pmidLookup.replace('{pmid}', pmid);
  return remembered(address, async () => {
    const text = await ask('the PubMed registry', address, CSL_JSON, signal);
    if (text === undefined) return undefined;
    const candidates = fromCslJson(json('the PubMed registry', text), 'registry');
    return candidates.some((c) => c.field === 'title') ? { candidates, address } : undefined;
  });
}

/** Asks the book catalogue by ISBN: an SRU server that answers MARCXML or MODS (SRU 1.2, OASIS searchRetrieve). */
export function askByIsbn(isbn: string, signal: AbortSignal): Promise<Answer | undefined> {
  const address = config.bookCatalogue.replace('{isbn}', isbn.replace(/[\s-]/g, ''));
  return remembered(address, async () => {
    const xml = await ask('the book catalogue', address, 'application/xml, text/xml', signal);
    if (xml === undefined) return undefined;
    const answer = await read({ task: 'catalogue', xml }, signal).catch((error: unknown) => {
      if (error instanceof Refusal) throw error;
      throw new Refusal(
        502,
        'The answer of the book catalogue could not be read. Try again later, or start by hand.',
      );
    });
    if (answer.candidates.length === 0 && answer.diagnostic)
      throw new Refusal(502, `The book catalogue says: ${answer.diagnostic}`);
    return answer.candidates.some((c) => c.field === 'title')
      ? { candidates: answer.candidates, address }
      : undefined;
  });
}

/** Works that fit some words, best first by the registry's own order; `issn` narrows them to a periodical. */
export async function searchWorks(
  words: string,
  issn: string | undefined,
  signal: AbortSignal,
): Promise<SourceRecord[]> {
  const query = new URLSearchParams({
    rows: '5',
    ...(words ? { 'query.bibliographic': words } : {}),
    ...(issn ? { filter: `issn:${issn}` } : {}),
  });
  const address = `${config.workSearch}?${query.toString()}`;
  const found = await remembered(address, async () => {
    const text = await ask('the registry of works', address, 'application/json', signal);
    if (text === undefined) return undefined;
    const { message } = json('the registry of works', text) as { message?: { items?: unknown[] } };
    const items = (message?.items ?? []).filter(
      (i): i is Record<string, unknown> => typeof i === 'object' && i !== null,
    );
    return items
      .map((item) => reconcile(fromCslJson(item, 'registry'), address, now()))
      .filter((r) => r.title);
  });
  return found ?? [];
}
