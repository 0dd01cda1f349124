/** Who may ask: the server's own pages, at its own names. And how the server ends. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { request } from 'node:http';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startStandIns } from '../../stand-ins/server';
import { until } from '../browser/app';
import { startServer, type Asked } from './server';

let app: Asked;
beforeAll(async () => {
  app = await startServer();
});
afterAll(() => app.stop());

/** Asks with headers as they are given, Host among them, which `fetch` sets itself. */
function raw(
  method: string,
  path: string,
  headers: Record<string, string>,
  body = '',
): Promise<{ status: number; body: string }> {
  return new Promise((resolve, reject) => {
    const sent = request(app.url + path, { method, headers }, (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += chunk.toString()));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, body: text }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}
const host = () => new URL(app.url).host;
const JSON_BODY = { 'content-type': 'application/json' };
const NOTE = JSON.stringify({ body: 'Not mine', projectId: null, sourceId: null });
const notes = () => app.rows<{ n: number }>('SELECT count(*) AS n FROM note')[0]!.n;

describe('the names the server answers to', () => {
  it.each(['127.0.0.1', 'localhost', '[::1]'])('are those of this machine: %s', async (name) => {
    expect((await raw('GET', '/', { host: `${name}:5180` })).status).toBe(200);
  });

  // A name of somebody else's that is made to point here (DNS rebinding) would be read by their page.
  it.each([
    'rebound.example',
    'localhost.example',
    '127.0.0.1.nip.example',
    'example',
    '10.0.0.7',
    'localhost@rebound.example',
    'rebound.example#localhost',
    '0.0.0.0',
    '[::ffff:127.0.0.1].example',
    'LOCALHOST.rebound.example',
    'localhost/',
    'localhost\\.example',
  ])('and no others: %s', async (name) => {
    for (const path of ['/', '/api/sources', '/api/into', '/sources'])
      expect({ path, ...(await raw('GET', path, { host: name })) }).toMatchObject({
        path,
        status: 421,
        body: expect.stringContaining('does not answer under that name'),
      });
  });
});

describe('a change', () => {
  it.each([
    ['another site', { origin: 'https://bad.example', 'sec-fetch-site': 'cross-site' }],
    ['another site, of a browser that says no more', { origin: 'https://bad.example' }],
    ['another program of this machine', { origin: 'http://localhost:9999', 'sec-fetch-site': 'same-site' }],
    [
      'another site, which says it is ours',
      { origin: 'https://bad.example', 'sec-fetch-site': 'same-origin' },
    ],
    ['a page without an origin', { origin: 'null', 'sec-fetch-site': 'cross-site' }],
    ['nobody who says who it is', {}],
  ])('is not taken from %s', async (_who, headers) => {
    const before = notes();
    const { status, body } = await raw(
      'POST',
      '/api/notes',
      { host: host(), ...JSON_BODY, ...headers },
      NOTE,
    );
    expect(status).toBe(403);
    expect(body).toMatch(/only taken from a page of Retexa itself/);
    expect(notes()).toBe(before);
  });

  it.each(['', 'text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data'])(
    'is not taken in a type any page can send: “%s”',
    async (type) => {
      const before = notes();
      const headers = { host: host(), origin: app.url, ...(type ? { 'content-type': type } : {}) };
      expect((await raw('POST', '/api/notes', headers, NOTE)).status).toBe(415);
      const file = await raw('POST', '/api/import?name=a.bib', headers, '@book{a, title={x}}');
      expect(file.status).toBe(415);
      expect(notes()).toBe(before);
      expect(app.rows(`SELECT id FROM job WHERE kind = 'import'`)).toEqual([]);
    },
  );

  it('is taken from our own page', async () => {
    const headers = { host: host(), origin: app.url, 'sec-fetch-site': 'same-origin', ...JSON_BODY };
    expect((await raw('POST', '/api/notes', headers, NOTE)).status).toBe(200);
  });

  it('is not read into another site’s page, which may link here all the same', async () => {
    const as = (mode: string) => ({ host: host(), 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': mode });
    expect((await raw('GET', '/api/sources', as('no-cors'))).status).toBe(403);
    expect((await raw('GET', '/sources', as('navigate'))).status).toBe(200);
  });
});

describe('what is too large', () => {
  const LARGE = 60 * 1024 * 1024;
  it.each([
    ['with its size said', true],
    ['without', false],
  ])('is refused in words, %s', async (_how, said) => {
    const body = said
      ? new Uint8Array(LARGE)
      : new ReadableStream({
          start(controller) {
            for (let i = 0; i < 60; i++) controller.enqueue(new Uint8Array(1024 * 1024));
            controller.close();
          },
        });
    const response = await app.ask('POST', '/api/captures/file?name=a.pdf', {
      body,
      headers: { 'content-type': 'application/octet-stream' },
    });
    expect(response.status).toBe(413);
    expect(await response.json()).toMatchObject({
      message: expect.stringMatching(/larger than 50 MB.*Nothing of it was kept/),
    });
    expect((await app.ask('GET', '/')).status).toBe(200);
  });
});

describe('twenty thousand characters shared from a phone', () => {
  it('wait for the capture window', async () => {
    const long = `${'The sluice was shut at neaps. '.repeat(700)}and that was all.`;
    const form = new FormData();
    form.set('title', 'A talk');
    form.set('text', long);
    const response = await app.ask('POST', '/capture/shared', { body: form });
    expect(response.status).toBe(303);
    const where = response.headers.get('location')!;
    expect(where.length).toBeLessThan(200);
    expect(await (await app.ask('GET', where)).text()).toContain(long);
  });

  it('say so when they did not arrive whole', async () => {
    const response = await app.ask('POST', '/capture/shared', {
      body: '--x\r\nbroken',
      headers: { 'content-type': 'multipart/form-data; boundary=x' },
    });
    expect(decodeURIComponent(response.headers.get('location')!.replace(/\+/g, ' '))).toMatch(
      /did not arrive whole/,
    );
  });
});

describe('the end of the server', () => {
  it.each(['SIGTERM', 'SIGINT'] as const)(
    'comes in order on %s, with streams open and work under way',
    async (signal) => {
      const standIns = await startStandIns();
      const dataFolder = mkdtempSync(join(tmpdir(), 'retexa-ending-'));
      const probe = createServer().listen(0, '127.0.0.1');
      await once(probe, 'listening');
      const { port } = probe.address() as AddressInfo;
      probe.close();
      const url = `http://127.0.0.1:${port}`;
      const server = spawn('node', ['scripts/start.mjs'], {
        env: {
          ...process.env,
          ...standIns.env,
          RETEXA_DATA: dataFolder,
          RETEXA_PORT: String(port),
          NODE_ENV: 'production',
        },
        stdio: 'ignore',
      });
      const gone = once(server, 'exit');
      await until(
        'the server',
        () =>
          fetch(url).then(
            (r) => r.ok,
            () => false,
          ),
        120_000,
      );
      const stream = await fetch(`${url}/api/events`);
      const heard = stream.text();
      const response = await fetch(`${url}/api/captures`, {
        method: 'POST',
        headers: { origin: url, 'content-type': 'application/json' },
        body: JSON.stringify({ text: 'https://slow.example/' }),
      });
      expect(response.status).toBe(200);
      const rows = <T>(sql: string) => {
        const db = new Database(join(dataFolder, 'retexa.sqlite'), { readonly: true });
        try {
          return db.prepare(sql).all() as T[];
        } finally {
          db.close();
        }
      };
      await until(
        'the capture',
        async () => rows<{ state: string }>('SELECT state FROM job')[0]?.state === 'running',
        120_000,
      );
      server.kill(signal);
      expect(await gone).toEqual([0, null]);
      expect(await heard).toContain(': open');
      expect(rows('SELECT state, error FROM job')).toEqual([
        // The next start goes on with it.
        { state: 'waiting', error: null },
      ]);
      // The database was closed: nothing waits in its log.
      expect(
        existsSync(join(dataFolder, 'retexa.sqlite-wal'))
          ? readFileSync(join(dataFolder, 'retexa.sqlite-wal')).length
          : 0,
      ).toBe(0);
      await standIns.stop();
    },
  );
});
