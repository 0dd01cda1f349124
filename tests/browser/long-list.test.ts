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
});

it('is printed and cited from while an import is being added', async () => {
  const more = Array.from({ length: 8_000 }, (_, i) => `@book{b${i}, title={Almanac ${i}}, year={1900}}`);
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
});

const heads = () =>
  me.page.$$eval('.heads .head', (all) =>
    all.map((e) => ({ name: e.textContent?.trim(), width: Math.round(e.getBoundingClientRect().width) })),
  );
const names = async () => (await heads()).map((h) => h.name);

it('is seen in columns that are chosen, moved, made wider and remembered', async () => {
  await me.open('/sources');
  await me.press('Columns');
  await until('the heads', async () => (await heads()).length === 6);
  expect(await names()).toEqual(['Creators ↑', 'Year', 'Title', 'Appeared in', 'Citekey', 'Passages']);
  await me.press('Which columns');
  const tick = (name: string) =>
    me.page.$$eval(
      '[aria-label="Which columns"] label',
      (all, n) => all.find((l) => l.textContent?.trim() === n)!.click(),
      name,
    );
  await me.see('Kind', '[aria-label="Which columns"]');
  await tick('Citekey');
  await tick('Kind');
  await until(
    'other columns',
    async () => (await names()).join() === 'Creators ↑,Year,Title,Appeared in,Passages,Kind',
  );
  // By keys: the title before the year, and wider.
  await me.page.$$eval('.head button', (all) => all.find((b) => b.textContent?.trim() === 'Title')!.focus());
  await me.page.keyboard.down('Alt');
  await me.page.keyboard.press('ArrowLeft');
  await me.page.keyboard.up('Alt');
  await until('the title to be second', async () => (await names())[1] === 'Title');
  const before = (await heads())[1]!.width;
  await me.page.$$eval('.head button', (all) => all.find((b) => b.textContent?.trim() === 'Title')!.focus());
  await me.page.keyboard.down('Shift');
  await me.page.keyboard.press('ArrowRight');
  await me.page.keyboard.up('Shift');
  await until('it to be wider', async () => (await heads())[1]!.width === before + 16);
  // By the pointer: wider still.
  const edge = (await (await me.page.$$('.head .edge'))[1]!.boundingBox())!;
  await me.page.mouse.move(edge.x + 3, edge.y + 8);
  await me.page.mouse.down();
  await me.page.mouse.move(edge.x + 43, edge.y + 8, { steps: 4 });
  await me.page.mouse.up();
  await until('it to be as wide as it was drawn', async () => (await heads())[1]!.width === before + 56);
  await me.press('Year', '.heads');
  await until('the newest first', async () => me.page.url().includes('sort=newest'));
  await me.see('2019', '.row[data-index="0"]');
  // By kind within the year, and by that alone.
  await me.page.keyboard.down('Shift');
  await me.press('Kind', '.heads');
  await me.page.keyboard.up('Shift');
  await until('the kind within the year', async () => me.page.url().includes('sort=newest%2Ckind'));
  await until('both to be numbered', async () =>
    (await names()).join().includes('Year ↓1,Appeared in,Passages,Kind ↑2'),
  );
  await me.see('By several columns', '.filters');
  await me.press('Kind ↑2', '.heads');
  await until('the kind alone', async () => me.page.url().endsWith('sort=kind'));

  await me.open('/sources');
  await me.press('Columns');
  await until('the heads', async () => (await heads()).length === 6);
  expect(await names()).toEqual(['Creators ↑', 'Title', 'Year', 'Appeared in', 'Passages', 'Kind']);
  expect((await heads())[1]!.width).toBe(before + 56);
  await me.press('Which columns');
  await me.press('As they were at first', '[aria-label="Which columns"]');
  await until('those of the beginning', async () => (await names())[4] === 'Citekey');
});

it('is narrowed to years that are typed, or dragged over on the chart', async () => {
  await me.open('/sources');
  await me.see('1,000 in the library');
  await me.press('Years');
  await me.type('From', '2010');
  await me.page.keyboard.press('Tab');
  await me.see('80 found');
  await me.press('All years', '[aria-label="Years"]');
  await me.see('1,000 in the library');
  const chart = '[aria-label^="All years"] .apexcharts-inner';
  const box = (await (await me.page.waitForSelector(chart))!.boundingBox())!;
  const drag = async (from: number, to: number) => {
    await me.page.mouse.move(box.x + box.width * from, box.y + box.height / 2);
    await me.page.mouse.down();
    await me.page.mouse.move(box.x + box.width * to, box.y + box.height / 2, { steps: 6 });
    await me.page.mouse.up();
  };
  await me.page.waitForSelector('[aria-label^="All years"] .apexcharts-selection-rect');
  await drag(0.02, 0.3);
  await me.see('found', '.sub');
  const search = new URL(me.page.url()).searchParams;
  const [from, to] = [Number(search.get('from')), Number(search.get('to'))];
  expect(from).toBeLessThan(to);
  expect(to).toBeLessThan(1990);
  const fit = app.rows<{ n: number }>(
    `SELECT count(*) n FROM source WHERE year BETWEEN ${from} AND ${to}`,
  )[0]!.n;
  await me.see(`${fit} found`, '.sub');
});
