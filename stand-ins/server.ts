import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { catalogue } from './catalogue';
import { DOCUMENTS } from './documents';
import { PAGES } from './pages';
import { handles, pubmed, registry, works } from './registry';
import { startMailSink, type SunkMail } from './mail';
import { LINKED_FILES, SITES } from './sites';
import { transcribe } from './speech';
import { TROUBLE } from './trouble';

/** Where the simulated registries are, as the application's settings. */
export const STAND_IN_ENV = {
  RETEXA_DOI_REGISTRY: 'https://doi.example',
  RETEXA_BOOK_CATALOGUE:
    'https://books.example/sru?version=1.1&operation=searchRetrieve&query=isbn%3D{isbn}&recordSchema=marcxml',
  RETEXA_PMID_LOOKUP: 'https://pubmed.example/{pmid}',
  RETEXA_WORK_SEARCH: 'https://works.example/works',
  RETEXA_HANDLE_RESOLVER: 'https://hdl.handle.example',
};

/** The running stand-ins: the environment that leads the application to them, and how to stop. */
export interface StandIns {
  port: number;
  env: Record<string, string>;
  /** How many times a host was asked. */
  asked: Map<string, number>;
  /** Mails that were handed in, the latest last. */
  mails: readonly SunkMail[];
  stop(): Promise<void>;
}

/** Starts the invented web, and a mail server that sends nothing on, on loopback ports; 0 takes a free one. */
export async function startStandIns(port = 0, mailPort = 0): Promise<StandIns> {
  const sink = await startMailSink(mailPort);
  const asked = new Map<string, number>();
  const server: Server = createServer((request, response) => {
    const host = (request.headers.host ?? '').split(':')[0]!.toLowerCase();
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://stand-in');
    asked.set(host, (asked.get(host) ?? 0) + 1);
    const trouble = TROUBLE[host];
    if (trouble) return trouble(request, response, pathname);
    if (host === '127.0.0.1' && pathname === '/transcribe') return transcribe(request, response);
    if (host === '127.0.0.1' && pathname === '/mail')
      return void response.writeHead(200, { 'content-type': 'text/plain; charset=utf-8' }).end(
        sink.mails
          .toReversed()
          .map(({ to, subject, text }) => `To: ${to.join(', ')}\n${subject}\n\n${text}`)
          .join(`\n${'-'.repeat(60)}\n`) || 'No mail was sent yet.',
      );
    if (host === 'doi.example') return registry(request, response, pathname);
    if (host === 'books.example') return catalogue(response, searchParams);
    if (host === 'pubmed.example') return pubmed(response, pathname);
    if (host === 'works.example') return works(response, searchParams);
    if (host === 'hdl.handle.example') return handles(response, pathname);
    const key = host + pathname;
    if (host === 'memberslibrary.example' && !/\bmember=1\b/.test(request.headers.cookie ?? ''))
      return void response.writeHead(403, { 'content-type': 'text/html' }).end('<h1>Members only</h1>');
    const document = DOCUMENTS[key];
    if (document)
      return void document.bytes().then(
        (bytes) => response.writeHead(200, { 'content-type': document.type }).end(bytes),
        (error: unknown) => response.writeHead(500).end(String(error)),
      );
    const file = LINKED_FILES[key];
    if (file) return void response.writeHead(200, { 'content-type': file.type }).end(file.body);
    const site = SITES[key];
    const body = site?.body ?? PAGES[key];
    if (body)
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', ...site?.headers }).end(body());
    else response.writeHead(404, { 'content-type': 'text/html; charset=utf-8' }).end('<h1>No such page</h1>');
  });
  await new Promise<void>((resolve, reject) =>
    server.once('error', reject).listen(port, '127.0.0.1', resolve),
  );
  const actual = (server.address() as AddressInfo).port;
  return {
    port: actual,
    asked,
    mails: sink.mails,
    env: {
      ...STAND_IN_ENV,
      RETEXA_TRANSCRIBE: `http://127.0.0.1:${actual}/transcribe`,
      RETEXA_SMTP: `smtp://127.0.0.1:${sink.port}`,
      RETEXA_ALLOW_HOSTS: `*.example=127.0.0.1:${actual}`,
    },
    async stop() {
      await sink.stop();
      server.closeAllConnections();
      await new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
}
