import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { brotliCompressSync, deflateSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fetchOutside } from './fetch-outside';

let server: Server;
let answer: RequestListener;
let asked: { url: string; host: string; agent: string; accept: string }[] = [];

beforeAll(async () => {
  server = createServer((request, response) => {
    const { host = '', accept = '' } = request.headers;
    asked.push({ url: request.url ?? '', host, agent: request.headers['user-agent'] ?? '', accept });
    answer(request, response);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  process.env.RETEXA_ALLOW_HOSTS = `*.example=127.0.0.1:${(server.address() as AddressInfo).port}`;
  process.env.RETEXA_CONTACT = 'reader@strand.example';
});
afterAll(() => {
  delete process.env.RETEXA_ALLOW_HOSTS;
  delete process.env.RETEXA_CONTACT;
  server.closeAllConnections();
  server.close();
});

const fetching = (address: string, maxBytes = 10_000) =>
  fetchOutside(address, { accept: 'text/html', maxBytes });
const reply =
  (body: Buffer | string, headers: Record<string, string> = {}): RequestListener =>
  (_request, response) =>
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', ...headers }).end(body);

describe('fetching', () => {
  it('asks politely and gives address, type and bytes', async () => {
    asked = [];
    answer = reply('<p>Ó</p>');
    const got = await fetching('https://a.example/page?q=1#part');
    expect(got).toMatchObject({
      status: 200,
      mediaType: 'text/html',
      address: 'https://a.example/page?q=1#part',
    });
    expect(got.bytes.toString()).toBe('<p>Ó</p>');
    expect(asked).toEqual([
      {
        url: '/page?q=1',
        host: 'a.example',
        accept: 'text/html',
        agent: expect.stringContaining('reader@strand.example'),
      },
    ]);
  });

  it.each([
    ['gzip', gzipSync],
    ['br', brotliCompressSync],
    ['deflate', deflateSync],
  ] as const)('unpacks %s', async (encoding, pack) => {
    answer = reply(pack(Buffer.from('tide')), { 'content-encoding': encoding });
    expect((await fetching('https://a.example/')).bytes.toString()).toBe('tide');
  });

  it('bounds the size after unpacking, so that a small file cannot become a large one', async () => {
    answer = reply(gzipSync(Buffer.alloc(1_000_000)), { 'content-encoding': 'gzip' });
    await expect(fetching('https://a.example/', 100_000)).rejects.toMatchObject({ status: 413 });
  });

  it('believes an announced size without reading on', async () => {
    answer = (_request, response) => {
      response.writeHead(200, { 'content-length': '50000000' });
      response.write('x');
    };
    await expect(fetching('https://a.example/')).rejects.toThrow(/48 MB large/);
  });

  it('follows redirects, and says where it arrived', async () => {
    answer = (request, response) =>
      request.url === '/from'
        ? response.writeHead(302, { location: '/to' }).end()
        : reply('there')(request, response);
    expect((await fetching('https://a.example/from')).address).toBe('https://a.example/to');
  });

  it.each([
    'http://127.0.0.1:22/',
    'http://169.254.169.254/latest/meta-data/',
    'http://[::1]/',
    'http://10.0.0.8/',
    'http://localhost/',
    '//192.168.0.1/router',
  ])('does not follow a redirect to %s', async (location) => {
    answer = (_request, response) => response.writeHead(302, { location }).end();
    await expect(fetching('https://a.example/')).rejects.toThrow(/private network/);
  });

  it.each(['file:///etc/passwd', 'ftp://a.example/x', 'data:text/html,x'])(
    'does not follow a redirect to %s',
    async (location) => {
      answer = (_request, response) => response.writeHead(302, { location }).end();
      await expect(fetching('https://a.example/')).rejects.toThrow(/only http and https/);
    },
  );

  it('ends circles and long chains', async () => {
    answer = (_request, response) => response.writeHead(302, { location: 'https://a.example/same' }).end();
    await expect(fetching('https://a.example/same')).rejects.toMatchObject({ status: 508 });
    answer = (request, response) => response.writeHead(302, { location: `${request.url}x` }).end();
    await expect(fetching('https://a.example/')).rejects.toMatchObject({ status: 508 });
  });

  it('gives error statuses back for the caller to explain', async () => {
    answer = (_request, response) => response.writeHead(404).end('gone');
    expect((await fetching('https://a.example/')).status).toBe(404);
  });

  it('says in words what happened to the connection', async () => {
    answer = (request) => request.socket.destroy();
    await expect(fetching('https://a.example/')).rejects.toThrow(/a\.example could not be reached/);
    answer = (_request, response) => {
      response.writeHead(200, { 'content-length': '100' });
      response.write('half');
      setImmediate(() => response.socket?.destroy());
    };
    await expect(fetching('https://a.example/')).rejects.toThrow(/broke off/);
    await expect(fetching('https://nowhere.invalid/')).rejects.toThrow(/No server answers to the name/);
  });

  it('can be cancelled', async () => {
    answer = () => undefined;
    const abort = new AbortController();
    const fetched = fetchOutside('https://a.example/', { accept: '*/*', maxBytes: 10, signal: abort.signal });
    setImmediate(() => abort.abort());
    await expect(fetched).rejects.toBeDefined();
  });
});
