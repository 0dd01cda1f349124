import PQueue from 'p-queue';
import { escapeHtml } from '../../core/text';
import { keepPicture, type KeptPicture } from '../copies/pictures';
import { fetchPolitely } from '../http/polite';
import type { Doing } from './types';

/** Most bytes of one picture, and of all of a page. */
const PICTURE_BYTES = 6 * 1024 * 1024;
const PAGE_PICTURES_BYTES = 40 * 1024 * 1024;
/** How many are fetched at a time; of one host it is one. */
const AT_ONCE = 4;

/** What is put in the place of a picture; see `reading/page`. */
const PLACE = /<span data-picture="([^"]*)" data-picture-n="(\d{1,3})"><\/span>/g;

/** Fetches one picture within bounds and keeps it; nothing where it cannot be had or is none that is shown. */
async function fetchPicture(
  address: string,
  left: () => number,
  signal: AbortSignal,
): Promise<KeptPicture | undefined> {
  if (left() <= 0) return undefined;
  const fetched = await fetchPolitely(address, {
    accept: 'image/webp,image/png,image/jpeg,image/gif',
    maxBytes: Math.min(PICTURE_BYTES, left()),
    signal,
  }).catch(() => undefined);
  if (!fetched || fetched.status >= 400) return undefined;
  return keepPicture(fetched.bytes, fetched.address);
}

/** A reading page with its pictures in their places, shown from our own address; those that are not kept are named there. */
export function withPictures(html: string, pictures: ReadonlyMap<number, KeptPicture>): string {
  return html.replace(PLACE, (whole, alt: string, n: string) => {
    const kept = pictures.get(Number(n));
    if (!kept) return `<span data-picture="${alt}" data-picture-missing="1"></span>`;
    const { sha256, width, height } = kept;
    const from = kept.address ? ` title="${escapeHtml(kept.address)}"` : '';
    return `<img src="pictures/${sha256}" alt="${alt}" width="${width}" height="${height}"${from}>`;
  });
}

/** Fetches the pictures of a page and puts them in their places. What cannot be had is left out; the page is kept all the same. */
export async function fetchPictures(
  html: string,
  addresses: readonly string[],
  doing: Doing,
): Promise<{ html: string; pictures: KeptPicture[] }> {
  if (addresses.length) doing.step(addresses.length === 1 ? 'Fetching its picture' : 'Fetching its pictures');
  const queue = new PQueue({ concurrency: AT_ONCE });
  const kept = new Map<number, KeptPicture>();
  let taken = 0;
  await queue.addAll(
    addresses.map((address, n) => async () => {
      if (doing.signal.aborted) return;
      const picture = await fetchPicture(address, () => PAGE_PICTURES_BYTES - taken, doing.signal);
      if (!picture) return;
      taken += picture.bytes;
      kept.set(n, picture);
    }),
  );
  doing.signal.throwIfAborted();
  return { html: withPictures(html, kept), pictures: [...kept.values()] };
}
