import { config, isHere } from '../config';
import { Refusal } from '../access/refusal';

/** What of a request says who asks. */
export interface Asking {
  method: string;
  headers: Headers;
}

const hostOf = (text: string): URL | undefined =>
  URL.canParse(`http://${text}`) ? new URL(`http://${text}`) : undefined;

/** Whether a Host header names this server: the address it is told it has, or this machine itself. */
export function isOurHost(header: string | null): boolean {
  if (header === null || /[/?#@\\\s]/.test(header)) return false;
  const url = hostOf(header);
  if (!url) return false;
  return isHere(url.hostname) || config.hosts.has(url.host) || config.hosts.has(url.hostname);
}

function isOurOrigin(origin: string, host: string): boolean {
  if (!URL.canParse(origin)) return false;
  const url = new URL(origin);
  // Another port of this machine is another program's.
  return url.host === hostOf(host)?.host || url.origin === config.origin;
}

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/**
 * Refuses what no page of ours asks: a Host that is not this server's (a name made to point here reads what is here), and
 * changes that another site makes a browser send. A change says where it comes from by `Origin` (RFC 6454, 7) or by
 * `Sec-Fetch-Site` (W3C Fetch Metadata); `none` is the person's own doing, such as a share sheet. What another site loads
 * into its own page is not given either; links to a view are.
 */
export function checkAsking({ method, headers }: Asking): void {
  const host = headers.get('host');
  if (!isOurHost(host))
    throw new Refusal(
      421,
      'This server does not answer under that name. Open it at the address it printed when it was started, or tell it its own with RETEXA_ORIGIN.',
    );
  // A program says who it is in a header that no page of another site can send, and its cookies are not looked at.
  if (headers.get('authorization') !== null) return;
  const site = headers.get('sec-fetch-site');
  const foreign = site !== null && site !== 'same-origin' && site !== 'none';
  if (!CHANGES.has(method)) {
    if (foreign && headers.get('sec-fetch-mode') !== 'navigate')
      throw new Refusal(403, 'This is only shown in pages of Retexa itself.');
    return;
  }
  const origin = headers.get('origin');
  const named = origin !== null && origin !== 'null';
  const ours = named ? isOurOrigin(origin, host!) : site !== null;
  if (foreign || !ours)
    throw new Refusal(
      403,
      'A change is only taken from a page of Retexa itself, and this request does not come from one. Nothing was changed.',
    );
}
