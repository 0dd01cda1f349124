/** A thousand references, printed whole and again in another style. */
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  const path = join(await mkdtemp(join(tmpdir(), 'retexa-long-')), 'long.bib');
  const entries = Array.from(
    { length: 1_000 },
    (_, i) =>
      `@article{k${i}, author={${['Pell', 'Osei', 'Ng', 'Zee'][i % 4]}, ${String.fromCharCode(65 + (i % 26))}.}, title={Ledger ${i} of mill ${i * 7}}, journal={Marsh Letters}, volume=${1 + (i % 50)}, pages={${i}--${i + 9}}, year=${1900 + (i % 120)}}`,
  );
  await writeFile(path, entries.join('\n'));
  await me.open('/import');
  const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
  await me.see('1,000 sources added');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const whole = (words: string) =>
  until(words, async () => {
    const [entries, said] = await me.page.evaluate(() => [
      document.querySelectorAll('.entry').length,
      document.querySelector('.head')?.textContent ?? '',
    ]);
    return entries === 1_000 && !String(said).includes('Printing');
  });

it('prints them all, and again in another style', async () => {
  await me.open('/sources');
  await me.page.$$eval('a', (all) => all.find((a) => a.textContent?.includes('Reference list'))!.click());
  await whole('the list');
  await me.page.click('[aria-label^="Citing style"]');
  await me.type('Find a style by name', 'ieee');
  await until('what was looked for at the top', () =>
    me.page.evaluate(
      () => document.querySelector<HTMLElement>('.panel [data-style]')?.dataset.style === 'ieee',
    ),
  );
  await me.page.click('.panel [data-style="ieee"]');
  const numbers = () => me.page.$$eval('.entry .label', (all) => all.map((l) => l.textContent?.trim()));
  await until('a thousand numbers', async () => (await numbers()).length === 1_000);
  await whole('the list in IEEE');
  expect(await numbers()).toEqual(Array.from({ length: 1_000 }, (_, i) => `[${i + 1}]`));
});

it('is filled in a tab that is not seen, which gets no frames', async () => {
  await me.open('/sources');
  await me.page.evaluate(() => {
    Object.defineProperty(document, 'hidden', { get: () => true });
    window.requestAnimationFrame = () => 0;
    document.querySelector<HTMLElement>('nav.path a[href="/references"]')!.click();
  });
  await whole('the list');
});

it('is given up for another style, and keeps no single reference waiting', async () => {
  await me.open('/sources');
  const first = await me.page.evaluate(async () => {
    const post = (path: string, body: unknown) =>
      fetch(path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const { items } = (await (await fetch('/api/sources?')).json()) as { items: { id: string }[] };
    const list = (style: string) =>
      post('/api/references', {
        view: 'test',
        scope: { kind: 'library' },
        look: { style, locale: 'de-DE' },
      });
    const unwanted = list('chicago-author-date').then((r) => `the list, ${r.status}`);
    const single = post('/api/citations', { works: [{ id: items[0]!.id }], named: false });
    const answered = await Promise.race([unwanted, single.then((r) => `a citation, ${r.status}`)]);
    const wanted = await list('vancouver');
    return [answered, await unwanted, ((await wanted.json()) as { entries: unknown[] }).entries.length];
  });
  expect(first).toEqual(['a citation, 200', 'the list, 499', 1_000]);
  expect(app.logged()).not.toMatch(/"level":(?:50|60)/);
});

it('is printed and cited from while an import is being added', async () => {
  const more = Array.from({ length: 20_000 }, (_, i) => `@book{b${i}, title={Almanac ${i}}, year={1900}}`);
  const path = join(await mkdtemp(join(tmpdir(), 'retexa-long-')), 'more.bib');
  await writeFile(path, more.join('\n'));
  await me.open('/import');
  const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
  await me.see('Adding ');
  const [id] = app.rows<{ id: string }>('SELECT id FROM source LIMIT 1');
  const answers = await me.page.evaluate(async (source) => {
    const post = (path: string, body: unknown) =>
      fetch(path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const look = { style: 'ieee', locale: 'en-US' };
    const scope = { kind: 'selection', ids: [source] };
    const list = await post('/api/references', { view: 'test', scope, look });
    const citation = await post('/api/citations', { works: [{ id: source }] });
    const { entries } = (await list.json()) as { entries: unknown[] };
    return [list.status, entries.length, citation.status];
  }, id!.id);
  expect(answers).toEqual([200, 1, 200]);
  const [job] = app.rows<{ state: string }>('SELECT state FROM job ORDER BY created DESC LIMIT 1');
  expect(job!.state).toBe('running');
  await me.press('Stop');
  await me.see('The import was cancelled. Nothing of the file was added.');
  expect(app.logged()).not.toMatch(/"level":(?:50|60)/);
});
