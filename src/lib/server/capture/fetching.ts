import { MOST_BYTES } from '../limits';
import { Refusal } from '../access/refusal';
import { fetchPolitely } from '../http/polite';
import type { Fetched } from '../http/fetch-outside';
import { read } from '../workers/pools';
import type { Doing } from './types';

const PAGE_BYTES = 12 * 1024 * 1024;

const KINDS: [RegExp, string][] = [
  [/^image\/svg/, 'a drawing'],
  [/^(?:video|audio)\//, 'a recording'],
  [/zip|compressed|octet-stream/, 'a file to download'],
  [/json|xml|csv/, 'a data file'],
  [/^text\//, 'plain text'],
];

/** Why an answer with an error is no page, in words for the person. */
function refusalOf({ status, address }: Fetched): Refusal | undefined {
  const { host } = new URL(address);
  if (status === 404 || status === 410)
    return new Refusal(
      404,
      `${host} has no page at this address (it answered ${status}). Check the address, or start by hand with it filled in.`,
    );
  if (status === 401 || status === 403)
    return new Refusal(
      403,
      `${host} shows this page only to people who are signed in (it answered ${status}). Open it in your browser and hand it over with the bookmarklet, or start by hand with the address filled in.`,
    );
  if (status === 429 || status === 503)
    return new Refusal(503, `${host} is busy (it answered ${status}). Try again in a few minutes.`);
  if (status >= 400)
    return new Refusal(
      502,
      `${host} answered with an error (${status}). Try again later, or start by hand with the address filled in.`,
    );
  return undefined;
}

/** Fetches what is at an address; refuses, in words for the person, what is no document. */
export async function fetchDocument(address: string, signal: AbortSignal): Promise<Fetched> {
  const fetched = await fetchPolitely(address, {
    accept: 'text/html,application/xhtml+xml,application/pdf;q=0.9,image/*;q=0.5,*/*;q=0.1',
    maxBytes: (mediaType) => (/html/.test(mediaType) ? PAGE_BYTES : MOST_BYTES),
    signal,
  });
  const refusal = refusalOf(fetched);
  if (refusal) throw refusal;
  return fetched;
}

/** What is at an address is not what a capture reads. */
export const notAPage = (mediaType: string) => {
  const kind = KINDS.find(([pattern]) => pattern.test(mediaType))?.[1] ?? 'something else than a page';
  return new Refusal(
    415,
    `The address leads to ${kind}, not to a page Retexa can read. Capture the page that describes it, or start by hand with the address filled in.`,
  );
};

/** Reads a page in a worker. */
export async function readAsPage(
  fetched: Pick<Fetched, 'bytes' | 'contentType' | 'address'> & { linkHeader?: string },
  doing: Doing,
) {
  if (fetched.bytes.length > PAGE_BYTES)
    throw new Refusal(
      413,
      'The page is larger than 12 MB. Capture a smaller page of the same work, or start by hand with the address filled in.',
    );
  doing.step('Reading the page');
  return read(
    {
      task: 'page',
      bytes: fetched.bytes,
      contentType: fetched.contentType,
      address: fetched.address,
      linkHeader: fetched.linkHeader ?? '',
    },
    doing.signal,
  );
}

/** Work that a capture can do without: why it failed is told in `notes`. */
export async function tolerant<T>(
  work: Promise<T>,
  doing: Doing,
  notes: string[],
  what: string,
): Promise<T | undefined> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof Refusal) || doing.signal.aborted) throw error;
    notes.push(`${what}: ${error.message}`);
    return undefined;
  }
}
