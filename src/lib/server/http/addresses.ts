import { lookup } from 'node:dns/promises';
import ipaddr from 'ipaddr.js';
import { config, type StandIn } from '../config';
import { Refusal } from '../access/refusal';

/** A host made concrete: the address to connect to, which is what was checked (the name is not resolved again). */
export interface Target {
  ip: string;
  family: 4 | 6;
  port: number;
  standIn: boolean;
}

/** The one block of IPv6 that is given out for the public internet (IANA, IPv6 Global Unicast Address Assignments). */
const GLOBAL = ipaddr.IPv6.parseCIDR('2000::/3');

/** Whether an IP address belongs to the public internet; loopback, private, link-local, metadata and reserved do not. */
export function isPublicAddress(ip: string): boolean {
  try {
    const address = ipaddr.process(ip);
    return address.range() === 'unicast' && (address.kind() === 'ipv4' || address.match(GLOBAL));
  } catch {
    return false;
  }
}

function standInFor(host: string): StandIn | undefined {
  return config.standIns.find(({ pattern }) =>
    pattern.startsWith('*.')
      ? host === pattern.slice(2) || host.endsWith(pattern.slice(1))
      : host === pattern,
  );
}

/**
 * Resolves where to connect for an address, refusing everything that is not public. A name that resolves to several
 * addresses is refused if any of them is not public.
 */
export async function targetOf(url: URL): Promise<Target> {
  const host = url.hostname.replace(/^\[|\]$|\.$/g, '').toLowerCase();
  const port = Number(url.port) || (url.protocol === 'https:' ? 443 : 80);
  const standIn = standInFor(host);
  if (standIn) return { ip: standIn.host, family: 4, port: standIn.port, standIn: true };
  const refused = () =>
    new Refusal(
      422,
      `${url.host} is an address inside a private network. Retexa only fetches pages from the public web; start by hand instead.`,
    );
  if (ipaddr.isValid(host)) {
    if (!isPublicAddress(host)) throw refused();
    return { ip: host, family: ipaddr.parse(host).kind() === 'ipv6' ? 6 : 4, port, standIn: false };
  }
  if (host === 'localhost' || /\.(?:local|internal|localhost)$/.test(host)) throw refused();
  const found = await lookup(host, { all: true }).catch(() => []);
  if (found.length === 0)
    throw new Refusal(
      422,
      `No server answers to the name ${host}. Check the address, or start by hand with it filled in.`,
    );
  if (!found.every((a) => isPublicAddress(a.address))) throw refused();
  const { address, family } = found[0]!;
  return { ip: address, family: family === 6 ? 6 : 4, port, standIn: false };
}
