import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { PAGES } from './pages';
import { registry } from './registry';
import { TROUBLE } from './trouble';

/** The running stand-ins: the environment that leads the application to them, and how to stop. */
export interface StandIns {
  port: number;
  env: Record<string, string>;
  /** How many times a host was asked. */
  asked: Map<string, number>;
  stop(): Promise<void>;
}

/** Starts the invented web on a loopback port; 0 takes a free one. */
export async function startStandIns(port = 0): Promise<StandIns> {
  const asked = new Map<string, number>();
  const server: Server = createServer((request, response) => {
    const host = (request.headers.host ?? '').split(':')[0]!.toLowerCase();
    const { pathname } = new URL(request.url ?? '/', 'http://stand-in');
    asked.set(host, (asked.get(host) ?? 0) + 1);
    const trouble = TROUBLE[host];
    if (trouble) return trouble(request, response, pathname);
    if (host === 'doi.example') return registry(request, response, pathname);
    const page = PAGES[host + pathname];
    if (page) response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page());
    else response.writeHead(404, { 'content-type': 'text/html; charset=utf-8' }).end('<h1>No such page</h1>');
  });
  await new Promise<void>((resolve, reject) =>
    server.once('error', reject).listen(port, '127.0.0.1', resolve),
  );
  const actual = (server.address() as AddressInfo).port;
  return {
    port: actual,
    asked,
    env: { RETEXA_ALLOW_HOSTS: `*.example=127.0.0.1:${actual}`, RETEXA_DOI_REGISTRY: 'https://doi.example' },
    stop: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
