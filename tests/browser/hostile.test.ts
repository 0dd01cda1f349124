/**
 * Hostile pages, captured and looked at: nothing of them runs in any view, no request leaves the browser, the server lives and
 * answers meanwhile. And a page that passes for another when it is handed over.
 */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HOSTILE_PAGES } from '../hostile/pages';
import { damagedPictures } from '../hostile/pictures';
import { startApp, until, visit, type App, type Person } from './app';

/** Each takes the reader as long as it may take, or nearly: they are tried on it alone. Those left keep it busy long enough. */
const LONGEST = [
  'tables in tables',
  'fifty thousand attributes',
  'twenty thousand links and authors',
  'four thousand embedded references',
];
const PAGES = Object.keys(HOSTILE_PAGES)
  .filter((name) => !LONGEST.includes(name))
  .map((name) => HOSTILE_PAGES[name]!);
const HANDED = PAGES.filter((html) => html.length < 100_000);
const PICTURES = Object.values(damagedPictures());
let app: App;
let me: Person;
let outside: Server;
/** What the browser asked for that is not ours. */
const left: string[] = [];

beforeAll(async () => {
  outside = createServer((request, response) => {
    const [, kind, n] = /^\/(page|picture)\/(\d+)/.exec(request.url ?? '') ?? [];
    if (kind === 'page')
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(PAGES[Number(n)]);
    else if (kind === 'picture')
      response.writeHead(200, { 'content-type': 'image/png' }).end(PICTURES[Number(n)]);
    else
      response
        .writeHead(200, { 'content-type': 'text/html' })
        .end('<!doctype html><title>Another</title><p>Another site.');
  });
  await new Promise<void>((resolve) => outside.listen(0, '127.0.0.1', resolve));
  const at = `127.0.0.1:${(outside.address() as AddressInfo).port}`;
  app = await startApp({ allow: `hostile.test=${at}` });
  me = await visit(app);
  me.page.on('request', (request) => {
    if (!request.url().startsWith(app.url) && !/^(?:data|blob|about):/.test(request.url()))
      left.push(request.url());
  });
});
afterAll(async () => {
  await me.leave();
  await app.stop();
  outside.close();
});

const post = (path: string, body: unknown) =>
  me.page.evaluate(
    async (where, what) => {
      const response = await fetch(where, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(what),
      });
      return { status: response.status, answer: (await response.json()) as Record<string, unknown> };
    },
    path,
    body,
  );

/** Goes to a view from the one that is open, as by a link in it. */
const goTo = async (path: string) => {
  await me.page.evaluate((href) => {
    const link = Object.assign(document.createElement('a'), { href });
    document.body.append(link);
    link.click();
    link.remove();
  }, path);
  await me.page.waitForFunction((href) => location.pathname === href, {}, path);
};

/** Whether anything of a page ran in the view that is open, or in its frames. */
const ran = async () =>
  (
    await Promise.all(
      me.page
        .frames()
        .map((f) => f.evaluate(() => (window as { told?: number }).told).catch(() => undefined)),
    )
  ).some(Boolean);

describe('hostile pages and pictures', () => {
  it('are captured or told, while others are answered', { timeout: 600_000 }, async () => {
    await me.open('/sources');
    const addresses = [
      ...PAGES.map((_, i) => `http://hostile.test/page/${i}`),
      ...PICTURES.map((_, i) => `http://hostile.test/picture/${i}`),
    ];
    for (const text of addresses) expect((await post('/api/captures', { text })).status).toBe(200);
    for (const [i, html] of HANDED.entries())
      expect(
        (
          await post('/api/captures/page', {
            html,
            address: `https://handed.example/${i}`,
            title: '<img src=x onerror="parent.told=1">',
          })
        ).status,
      ).toBe(200);
    let [asked, longest] = [0, 0];
    await until(
      'every capture to come to an end',
      async () => {
        const begun = performance.now();
        const response = await fetch(`${app.url}/api/sources`);
        expect(response.status).toBe(200);
        await response.arrayBuffer();
        longest = Math.max(longest, performance.now() - begun);
        asked++;
        return (
          app.rows<{ n: number }>(`SELECT count(*) AS n FROM job WHERE state IN ('waiting', 'running')`)[0]!
            .n === 0
        );
      },
      540_000,
    );
    console.log(`${asked} requests answered meanwhile, the longest in ${longest.toFixed(0)} ms`);
    const failed = app
      .rows<{ error: string }>(`SELECT error FROM job WHERE state = 'failed'`)
      .map((r) => r.error);
    expect(failed.filter((e) => /inside Retexa/.test(e))).toEqual([]);
    expect(app.rows<{ n: number }>('SELECT count(*) AS n FROM copy')[0]!.n).toBeGreaterThan(40);
  });

  it('run nothing and load nothing in any view', { timeout: 600_000 }, async () => {
    for (const view of [
      '/',
      '/intake',
      '/sources',
      '/passages',
      '/references',
      '/duplicates',
      '/search?q=sluices',
      '/bin',
      '/import',
    ]) {
      await me.open(view);
      expect({ view, ran: await ran() }).toEqual({ view, ran: false });
    }
    for (const { id } of app.rows<{ id: string }>('SELECT id FROM copy ORDER BY length(text) LIMIT 60')) {
      await goTo(`/copies/${id}`);
      await me.page.waitForFunction(
        (of) => {
          const frame = document.querySelector<HTMLIFrameElement>('iframe.open');
          return frame?.src.includes(of) && frame.contentDocument?.readyState === 'complete';
        },
        {},
        id,
      );
      expect({ id, ran: await ran() }).toEqual({ id, ran: false });
      const odd = await me.page.$eval('iframe', (f) => {
        const { contentDocument: doc } = f as HTMLIFrameElement;
        return [
          ...doc!.querySelectorAll(
            'script, form, input, iframe, object, embed, base, [onclick], [onerror], [style]',
          ),
        ]
          .filter((e) => !e.closest('.leaf'))
          .map((e) => e.outerHTML.slice(0, 100));
      });
      expect(odd).toEqual([]);
    }
    for (const { id } of app.rows<{ id: string }>('SELECT id FROM source LIMIT 12')) {
      await goTo(`/sources/${id}`);
      expect(await ran()).toBe(false);
    }
    expect(left).toEqual([]);
  });
});

describe('a page that hands over another’s address', () => {
  /** Opens the capture window from another site, which hands over a page as it likes. */
  const handOver = async (page: { address: string; html: string; title: string; selection: string }) => {
    const site = await me.page.browser().newPage();
    await site.goto(`http://127.0.0.1:${(outside.address() as AddressInfo).port}/`);
    const opened = new Promise<typeof site>((resolve) =>
      site.once('popup', (p) => resolve(p as typeof site)),
    );
    await site.evaluate(
      (where, given) => {
        const window_ = open(
          `${where}/capture?handed=1&url=${encodeURIComponent(given.address)}`,
          'capture',
          'width=500,height=720',
        );
        addEventListener('message', (e) => {
          if (e.data === 'retexa:ready') window_!.postMessage({ retexa: 'page', ...given }, where);
        });
      },
      app.url,
      page,
    );
    const window_ = await opened;
    await window_.waitForSelector('html[data-ready="true"]');
    return { window_, close: async () => (await window_.close(), await site.close()) };
  };

  it('is not taken, and it is said', async () => {
    const { window_, close } = await handOver({
      address: 'https://trusted.example/paper',
      html: '<p>Forged</p>',
      title: 'Forged',
      selection: 'words it never had',
    });
    await window_.waitForFunction(() =>
      document.body.innerText.includes('names an address that is not its own'),
    );
    expect(await window_.evaluate(() => document.body.innerText)).not.toContain('Forged');
    expect(app.rows(`SELECT id FROM job WHERE input LIKE '%trusted.example%'`)).toEqual([]);
    await close();
  });

  it('is taken from its own address, which is shown, and kept by a press alone', async () => {
    const own = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;
    const { window_, close } = await handOver({
      address: `${own}/paper`,
      html: '<title>Own</title><p>Own words',
      title: 'Own',
      selection: '',
    });
    await window_.waitForFunction(
      (host) => document.body.innerText.includes(`${host} hands this page over`),
      {},
      new URL(own).host,
    );
    expect(app.rows(`SELECT id FROM job WHERE input LIKE '%/paper%'`)).toEqual([]);
    await close();
  });
});
