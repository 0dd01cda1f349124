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
    me.page.$eval('.panel [data-style]', (first) => (first as HTMLElement).dataset.style === 'ieee'),
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
