import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import type { Readable } from 'node:stream';
import { config } from '../config';
import { Refusal } from '../refusal';
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

function unpacked(response: IncomingMessage): Readable {
  const encoding = response.headers['content-encoding'];
  if (encoding === 'gzip') return response.pipe(createGunzip());
  if (encoding === 'br') return response.pipe(createBrotliDecompress());
  if (encoding === 'deflate') return response.pipe(createInflate());
  return response;
}

const megabytes = (n: number) => `${Math.round(n / 1024 / 1024)} MB`;

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
  for await (const chunk of unpacked(response)) {
    size += (chunk as Buffer).length;
    if (size > maxBytes) {
      response.destroy();
      throw tooBig();
    }
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
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
  let url = new URL(address);
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
      const location = response.headers.location;
      if (status >= 300 && status < 400 && location && URL.canParse(location, url)) {
        response.resume();
        url = new URL(location, url);
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
