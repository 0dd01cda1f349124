/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/// <reference types="@sveltejs/kit" />
import { files, version } from '$service-worker';
import { keepWaiting } from './lib/ui/capture/waiting';

/**
 * Shows a page for capturing where the server is not reached, and keeps what is shared then. Of libraries nothing is cached: only the
 * application itself, whose files are named by what is in them.
 */
const worker = globalThis.self as unknown as ServiceWorkerGlobalScope;
const CACHE = `retexa-${version}`;
const AWAY = '/away';

const IMPORTED = /(?:\bfrom|\bimport)\s*["'](\.[^"']+\.js)["']/g;

/** All that a script imports as it begins, with what that imports. */
async function withImports(cache: Cache, script: string, seen: Set<string>): Promise<void> {
  if (seen.has(script)) return;
  seen.add(script);
  const answer = await fetch(script);
  if (!answer.ok) throw new Error(`${script} is answered ${answer.status}`);
  await cache.put(script, answer.clone());
  const text = await answer.text();
  const imported = [...text.matchAll(IMPORTED)].map(([, path]) => new URL(path!, answer.url).pathname);
  await Promise.all(imported.map((path) => withImports(cache, path, seen)));
}

/** The page for capturing, and all that it is made of: what it names, what that imports, and the parts it is put together from. */
async function fill(): Promise<void> {
  const cache = await caches.open(CACHE);
  const page = await fetch(AWAY, { cache: 'no-store' });
  if (!page.ok) throw new Error(`the page for capturing is answered ${page.status}`);
  const html = await page.clone().text();
  const at = (path: string, from = new URL(AWAY, location.origin).href) => new URL(path, from).pathname;
  const named = [...new Set(html.match(/(?<=["'])[^"'\s]*\/_app\/immutable\/[^"'\s]+/g) ?? [])].map((path) =>
    at(path),
  );
  const seen = new Set<string>();
  const scripts = named.filter((path) => path.endsWith('.js'));
  for (const script of scripts) await withImports(cache, script, seen);
  const parts = /node_ids: \[([\d, ]+)\]/.exec(html)?.[1]?.split(',').map(Number) ?? [];
  const app = scripts.find((path) => /\/entry\/app\./.test(path)) ?? '';
  const whole = await (await cache.match(app))!.text();
  for (const node of parts) {
    const path = new RegExp(`["'](\\.[^"']*/nodes/${node}\\.[^"']+\\.js)["']`).exec(whole)?.[1];
    if (path) await withImports(cache, at(path, new URL(app, location.origin).href), seen);
  }
  await cache.addAll([...named.filter((path) => !seen.has(path)), ...files]);
  await cache.put(AWAY, page);
}

worker.addEventListener('install', (event) => {
  event.waitUntil(fill().then(() => worker.skipWaiting()));
});
worker.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((name) => name !== CACHE).map((name) => caches.delete(name))),
      ),
  );
});

async function asset(request: Request): Promise<Response> {
  const cache = await caches.open(CACHE);
  const known = await cache.match(request);
  if (known) return known;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}

async function view(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch (error) {
    const url = new URL(request.url);
    if (url.pathname !== AWAY)
      return Response.redirect(`${AWAY}?to=${encodeURIComponent(url.pathname + url.search)}`, 302);
    const page = await caches.match(AWAY, { ignoreSearch: true });
    if (page) return page;
    throw error;
  }
}

/** What a phone shares while the server is not reached is kept. */
async function shared(request: Request): Promise<Response> {
  const again = request.clone();
  try {
    return await fetch(request);
  } catch {
    const form = await again.formData();
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? value.trim() : '';
    };
    const address = text('url') || (/https?:\/\/\S+/.exec(text('text'))?.[0] ?? '');
    if (address) await keepWaiting({ kind: 'capture', body: { text: address } });
    else if (text('text') || text('title'))
      await keepWaiting({
        kind: 'note',
        body: {
          body: [text('title'), text('text')].filter(Boolean).join('\n'),
          projectId: null,
          sourceId: null,
        },
      });
    for (const file of form.getAll('files'))
      if (typeof file !== 'string' && file.size)
        await keepWaiting({ kind: 'file', name: file.name, into: {}, file });
    return Response.redirect(AWAY, 303);
  }
}

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== location.origin) return;
  if (request.method === 'POST' && url.pathname === '/capture/shared') event.respondWith(shared(request));
  else if (request.method !== 'GET') return;
  else if (url.pathname.startsWith('/_app/immutable/')) event.respondWith(asset(request));
  else if (request.mode === 'navigate') event.respondWith(view(request));
});
