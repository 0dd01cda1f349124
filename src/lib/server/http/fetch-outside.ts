import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import { pipeline, Readable, type Transform } from 'node:stream';
import { createBrotliDecompress, createGunzip, createInflate, createInflateRaw } from 'node:zlib';
import { config } from '../config';
import { withoutPassword } from '../../core/source';
import { megabytes } from '../limits';
import { Refusal } from '../access/refusal';
import { targetOf, type Target } from './addresses';

/** What came back. `address` is where it came from after redirects. */
export interface Fetched {
  address: string;
  status: number;
  mediaType: string;
  contentType: string;
  /** The Link header, empty when there is none. */
  linkHeader: string;
  /** What a busy server asks to wait, in seconds. */
  retryAfter?: number;
  bytes: Buffer;
}

export interface FetchOptions {
  accept: string;
  /** Most bytes of body taken, after decompression; by media type where that matters. */
  maxBytes: number | ((mediaType: string) => number);
  signal?: AbortSignal;
}

/** Bounds of every request, in milliseconds. */
export const FIRST_BYTE_MS = 10_000;
export const WHOLE_MS = 30_000;
const MAX_REDIRECTS = 8;

const seconds = (ms: number) => `${ms / 1000} seconds`;

function open(url: URL, target: Target, accept: string, signal: AbortSignal): Promise<IncomingMessage> {
  const secure = url.protocol === 'https:' && !target.standIn;
  return new Promise((resolve, reject) => {
    const timer = setTimeout(
      () =>
        abort.abort(
          new Refusal(
            504,
            `${url.host} did not answer within ${seconds(FIRST_BYTE_MS)}. Try again later, or start by hand.`,
          ),
        ),
      FIRST_BYTE_MS,
    );
    const abort = new AbortController();
    const call = (secure ? secureRequest : plainRequest)(
      {
        host: target.ip,
        family: target.family,
        port: target.port,
        path: url.pathname + url.search,
        servername: url.hostname,
        method: 'GET',
        headers: {
          host: url.host,
          accept,
          'accept-encoding': 'gzip, deflate, br',
          'user-agent': `Retexa/0.1 (citation capture for one reader; ${config.contact})`,
        },
        signal: AbortSignal.any([signal, abort.signal]),
      },
      (response) => {
        clearTimeout(timer);
        resolve(response);
      },
    );
    call.on('error', (error) => {
      clearTimeout(timer);
      if (abort.signal.aborted) return reject(abort.signal.reason as Error);
      if (signal.aborted) return reject(signal.reason as Error);
      reject(
        new Refusal(
          502,
          `${url.host} could not be reached (${(error as NodeJS.ErrnoException).code ?? error.message}). Check the address or try again later.`,
        ),
      );
    });
    call.end();
  });
}

/** A zlib stream begins with such two bytes (RFC 1950, 2.2); what servers call deflate is as often raw (RFC 1951). */
const isZlib = ([first = 0, second = 0]: Uint8Array) =>
  (first & 0x0f) === 8 && (first * 256 + second) % 31 === 0;

async function inflating(packed: Readable): Promise<Readable> {
  const chunks = packed[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  const first = await chunks.next();
  if (first.done) return Readable.from([]);
  const whole = Readable.from(
    (async function* () {
      yield first.value;
      for (let next = await chunks.next(); !next.done; next = await chunks.next()) yield next.value;
    })(),
  );
  return through(whole, isZlib(first.value) ? createInflate() : createInflateRaw());
}

/** What comes out of `unpacking`, failing when what goes in does. */
function through<T extends Transform>(packed: Readable, unpacking: T): T {
  pipeline(packed, unpacking, () => undefined);
  return unpacking;
}

/** The body of an answer as it was before it was packed for the way, once or several times (RFC 9110, 8.4). */
async function unpacked(response: IncomingMessage, host: string): Promise<Readable> {
  let body: Readable = response;
  const codings = (response.headers['content-encoding'] ?? '').toLowerCase().split(',');
  for (const coding of codings.map((c) => c.trim()).reverse()) {
    if (coding === 'gzip' || coding === 'x-gzip') body = through(body, createGunzip());
    else if (coding === 'br') body = through(body, createBrotliDecompress());
    else if (coding === 'deflate') body = await inflating(body);
    else if (coding && coding !== 'identity') {
      response.destroy();
      throw new Refusal(
        415,
        `${host} packs its answer in a way Retexa cannot unpack (${coding.slice(0, 40)}). Save the page in the browser and drop the file.`,
      );
    }
  }
  return body;
}

async function bodyOf(response: IncomingMessage, maxBytes: number, host: string): Promise<Buffer> {
  const tooBig = (size?: number) =>
    new Refusal(
      413,
      `The document at ${host} is ${size ? `${megabytes(size)} large` : 'very large'}; Retexa takes at most ${megabytes(maxBytes)}. Start by hand with the address filled in.`,
    );
  const announced = Number(response.headers['content-length']);
  if (announced > maxBytes) {
    response.destroy();
    throw tooBig(announced);
  }
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of await unpacked(response, host)) {
    size += (chunk as Buffer).length;
    if (size > maxBytes) {
      response.destroy();
      throw tooBig();
    }
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}

/** A header that holds UTF-8, which Node gives byte by byte; one that holds something else as it is. */
function inUtf8(header: string | undefined): string | undefined {
  if (header === undefined || /^[\0-\x7f]*$/.test(header)) return header;
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.from(header, 'latin1'));
  } catch {
    return header;
  }
}

/**
 * Fetches from the outside by GET: public addresses only, checked after resolution and at every redirect, with bounds
 * on time and size. Every failure is a Refusal whose words are for the person. Statuses of 400 and over are given
 * back, not thrown; the caller knows what they mean.
 */
export async function fetchOutside(address: string, options: FetchOptions): Promise<Fetched> {
  const whole = AbortSignal.timeout(WHOLE_MS);
  const signal = options.signal ? AbortSignal.any([whole, options.signal]) : whole;
  const seen = new Set<string>();
  let url = new URL(withoutPassword(address));
  try {
    for (;;) {
      if (url.protocol !== 'http:' && url.protocol !== 'https:')
        throw new Refusal(
          422,
          `${url.protocol.replace(':', '')} addresses cannot be captured, only http and https.`,
        );
      const key = url.href;
      if (seen.has(key) || seen.size > MAX_REDIRECTS)
        throw new Refusal(
          508,
          `${url.host} sends the request round in circles. Open the page in the browser, copy the address it ends at, and capture that.`,
        );
      seen.add(key);
      const response = await open(url, await targetOf(url), options.accept, signal);
      const status = response.statusCode ?? 0;
      const location = inUtf8(response.headers.location);
      if (status >= 300 && status < 400 && location && URL.canParse(location, url)) {
        response.resume();
        url = new URL(withoutPassword(new URL(location, url).href));
        continue;
      }
      const contentType = response.headers['content-type'] ?? '';
      const mediaType = contentType.split(';')[0]!.trim().toLowerCase();
      const most = typeof options.maxBytes === 'number' ? options.maxBytes : options.maxBytes(mediaType);
      const bytes = await bodyOf(response, most, url.host);
      const { link } = response.headers;
      const wait = Number(response.headers['retry-after']);
      return {
        address: url.href,
        status,
        contentType,
        mediaType,
        linkHeader: Array.isArray(link) ? link.join(', ') : (link ?? ''),
        ...(Number.isFinite(wait) && wait > 0 ? { retryAfter: wait } : {}),
        bytes,
      };
    }
  } catch (error) {
    if (error instanceof Refusal) throw error;
    if (whole.aborted)
      throw new Refusal(
        504,
        `${url.host} took longer than ${seconds(WHOLE_MS)} to send the document. Try again later, or start by hand.`,
      );
    if (options.signal?.aborted) throw new Refusal(499, 'The capture was cancelled.');
    throw new Refusal(
      502,
      `The answer of ${url.host} broke off (${(error as Error).message}). Try again, or start by hand.`,
    );
  }
}
