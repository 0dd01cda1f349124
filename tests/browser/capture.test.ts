import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../src/lib/core/source';
import { startApp, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const records = () =>
  app
    .rows<{ id: string; record: string; checked: string | null }>('SELECT * FROM source ORDER BY id')
    .map((r) => ({ ...r, record: sourceRecord.parse(JSON.parse(r.record)) }));
const sources = () => records().length;

describe('capturing an article page', () => {
  it('begins on an empty Desk that says the next step', async () => {
    await me.open('/');
    await me.see('Begin with something you read');
  });

  it('reads it into Intake, each value with its origin, and keeps the page', async () => {
    await me.capture('https://marshletters.example/articles/3-1-7');
    await me.see('Ferreira, Ng & Ó Súilleabháin 2021', '.tray');
    await me.press('Ferreira, Ng & Ó Súilleabháin 2021', '.tray');
    await me.see('1 of 1 to check');
    await me.see(
      'Ferreira, A., Ng, T. H., & Ó Súilleabháin, C. (2021). Salt marsh recovery behind breached dams. Marsh Letters, 3(1–2), 7–24. https://doi.org/10.5555/marsh.3.7',
      '.printed',
    );
    await me.see('registry', '.form');

    const [{ record }] = records() as [ReturnType<typeof records>[number]];
    expect(record).toMatchObject({
      type: 'article-journal',
      title: 'Salt marsh recovery behind breached dams',
      'container-title': 'Marsh Letters',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      issued: { 'date-parts': [[2021, 11]] },
      DOI: '10.5555/marsh.3.7',
      language: 'en',
      URL: 'https://marshletters.example/articles/3-1-7',
    });
    expect(record.author).toHaveLength(3);
    expect(record.abstract).toContain('Salt marsh returned');
    const today = new Date().toISOString().slice(0, 10).split('-').map(Number);
    expect(record.accessed).toEqual({ 'date-parts': [today] });
    for (const field of ['title', 'author', 'volume', 'issued', 'DOI', 'abstract', 'accessed'])
      expect(record.retexa.origins[field]?.length, field).toBeGreaterThan(0);

    const [copy] = app.rows<{
      sha256: string;
      reading_sha256: string;
      address: string;
      captured: string;
      text: string;
    }>('SELECT * FROM copy');
    const bytes = await readFile(join(app.dataFolder, 'files', copy!.sha256.slice(0, 2), copy!.sha256));
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(copy!.sha256);
    expect(bytes.toString()).toContain('citation_title');
    const reading = await readFile(
      join(app.dataFolder, 'files', copy!.reading_sha256.slice(0, 2), copy!.reading_sha256),
      'utf8',
    );
    expect(reading).not.toContain('<script');
    expect(copy!.text).toContain('Within six years of a breach');
    expect(copy!.address).toBe('https://marshletters.example/articles/3-1-7');
  });

  it('shows the page beside the values; a value is fixed there and the print follows', async () => {
    const shown = await me.page.$eval(
      'iframe',
      (f) => (f as HTMLIFrameElement).contentDocument!.body.innerText,
    );
    expect(shown).toContain('Elevation and the return of plants');
    await me.type('Volume', '4');
    await me.page.keyboard.press('Enter');
    await me.see('Marsh Letters, 4(1–2), 7–24', '.printed');
    await me.see('Saved.', '.toasts');
    expect(records()[0]!.record.volume).toBe('4');
    await me.press('Undo', '.toasts');
    await me.see('Marsh Letters, 3(1–2), 7–24', '.printed');
    expect(records()[0]!.record.volume).toBe('3');
    expect(
      app
        .rows('SELECT number FROM revision WHERE subject = ? ORDER BY number', 'source')
        .map((r) => r.number),
    ).toEqual([1, 2, 3]);
  });

  it('is confirmed with the keyboard', async () => {
    await me.page.$eval('h1', (h) => (h as HTMLElement).click());
    await me.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await me.page.keyboard.press('y');
    await me.see('Everything is checked');
    expect(records()[0]!.checked).not.toBeNull();
    await me.open('/sources');
    await me.see('Prints complete', '.row');
  });
});

describe('other ways in', () => {
  it('takes a bare DOI', async () => {
    await me.capture('10.5555/shr.9.33');
    await me.see('Sato 2020', '.tray');
    const record = records().find((r) => r.record.DOI === '10.5555/shr.9.33')!.record;
    expect(record).toMatchObject({
      type: 'article-journal',
      title: 'Turbines in old wheelhouses',
      page: '33-51',
    });
  });

  it('takes a burst, one typed while the other is on its way', async () => {
    const before = sources();
    await me.type('What to capture', 'https://longsoundwalks.example/posts/thirty-one-ponds');
    await me.page.keyboard.press('Enter');
    await me.page.keyboard.type('https://openindex.example/records/w3107');
    await me.page.keyboard.press('Enter');
    await me.see('Osei 2022', '.tray');
    await me.see('Barrow & Tully 1998', '.tray');
    expect(sources()).toBe(before + 2);
  });

  it('reads a news story, a thesis and a page that says next to nothing', async () => {
    for (const [address, label] of [
      ['https://news.portledger.example/2023/03/14/last-miller.html', 'Raman & Oakes 2023'],
      ['repository.northsound.example/handle/1/4455', 'Lindqvist 2016'],
      ['https://harbourcouncil.example/guides/dressing', 'Dressing a millstone: A practical guide'],
    ] as const) {
      await me.capture(address);
      await me.see(label, '.tray');
    }
    const types = records().map((r) => r.record.type);
    expect(types).toContain('article-newspaper');
    expect(types).toContain('thesis');
    const bare = records().find((r) => r.record.type === 'webpage')!.record;
    expect(bare.author).toBeUndefined();
    expect(bare.issued).toBeUndefined();
  });

  it('starts a source of any type by hand, without a title even, and finds it wanting', async () => {
    await me.page.keyboard.press('Escape');
    await me.open('/sources');
    await me.page.keyboard.press('n');
    await me.see('What kind of source is it?');
    await me.choose('What kind of source is it?', 'Map');
    await me.press('Start the source');
    await me.gone('What kind of source is it?');
    await me.see('No title', '.printed');
    // The style prints no scale, so that it waits among what else there is of a map.
    await (await me.page.waitForSelector('.form .more button'))!.click();
    await me.type('Scale', '1:10,000');
    await me.page.keyboard.press('Enter');
    await me.see('Saved.', '.toasts');
    // What is here already is said before it is added.
    await me.page.keyboard.press('n');
    await me.type('Title, if it has one', 'Turbines in old wheelhouses');
    await me.see('Looks like one you have: Sato 2020', 'dialog');
    await me.page.keyboard.press('Escape');
    await me.gone('What kind of source is it?');
    const map = records().find((r) => r.record.type === 'map')!.record;
    expect(map.scale).toBe('1:10,000');
    expect(map.title).toBeUndefined();
    await me.open('/sources?state=findings');
    await me.see('No title', '.row');
  });

  it('edits creators: adds, reorders, and the print follows', async () => {
    await me.open('/sources?q=turbines');
    await me.press(
      'Sato, Y. (2020). Turbines in old wheelhouses. Small Hydropower Review, 9(2), 33–51. https://doi.org/10.5555/shr.9.33',
    );
    await me.see('Proof', '.printed');
    await me.page.focus('#f-author');
    await me.page.keyboard.type('van der Zee, Mieke; Northsound Heritage Agency');
    await me.page.keyboard.press('Enter');
    await me.see('Sato, Y., van der Zee, M., & Northsound Heritage Agency', '.printed');
    await me.page.$$eval('[data-field="author"] [aria-label="Move up"]', (all) =>
      (all[1] as HTMLElement).click(),
    );
    await me.see('van der Zee, M., Sato, Y., & Northsound Heritage Agency', '.printed');
    const record = records().find((r) => r.record.DOI === '10.5555/shr.9.33')!.record;
    expect(record.author).toEqual([
      { family: 'Zee', 'non-dropping-particle': 'van der', given: 'Mieke' },
      { family: 'Sato', given: 'Yuki' },
      { literal: 'Northsound Heritage Agency' },
    ]);
  });

  it('points from a part of the printed reference to its field and back', async () => {
    await me.page.hover('.printed [data-field="volume"]');
    await me.see('Volume', '.pointed');
    await me.page.click('.printed [data-field="container-title"]');
    expect(await me.page.evaluate(() => document.activeElement?.id)).toBe('f-container-title');
  });
});

describe('what cannot be captured says why and leaves nothing behind', () => {
  it.each([
    ['https://silent.example/', 'could not be reached'],
    ['https://nowhere.invalid/x', 'No server answers to the name nowhere.invalid'],
    ['https://marshletters.example/none', 'no page at this address'],
    ['https://broken.example/', 'answered with an error'],
    ['https://huge.example/', 'at most 12 MB'],
    ['https://bomb.example/', 'at most 12 MB'],
    ['https://picture.example/a.png', 'The picture is damaged'],
    ['http://192.168.1.1/admin', 'inside a private network'],
    ['http://[::1]:8080/', 'inside a private network'],
    ['http://localhost/', 'inside a private network'],
    ['https://private.example/', 'inside a private network'],
    ['https://loop.example/a', 'in circles'],
    ['https://members.example/', 'signed in'],
    ['10.5555/unknown', 'does not know the DOI'],
  ])('%s', async (text, words) => {
    await me.open('/sources');
    const before = sources();
    const files = app.rows('SELECT id FROM copy').length;
    await me.capture(text);
    await me.page.waitForFunction(
      (w: string) => new RegExp(w).test(document.querySelector('.tray')?.textContent ?? ''),
      { timeout: 20_000 },
      words,
    );
    await me.see('Start by hand', '.tray');
    expect(sources()).toBe(before);
    expect(app.rows('SELECT id FROM copy')).toHaveLength(files);
    await me.press('Put away', '.tray header');
  });

  it('a host that never answers, after ten seconds; by hand goes on with the address filled in', async () => {
    const before = sources();
    await me.capture('https://slow.example/paper');
    await me.see('did not answer within 10 seconds', '.tray');
    expect(sources()).toBe(before);
    await me.press('Start by hand', '.tray');
    await me.see('What kind of source is it?');
    await me.press('Start the source');
    await me.gone('What kind of source is it?');
    await me.see('As it prints');
    expect(records().some((r) => r.record.URL === 'https://slow.example/paper')).toBe(true);
  });

  it('an ISBN the catalogue does not know goes on by hand, with it filled in', async () => {
    await me.open('/');
    await me.capture('978-3-16-148410-0');
    await me.see('has no book with the ISBN 978-3-16-148410-0', '.tray');
    await me.press('Start by hand', '.tray');
    await me.see('ISBN', 'dialog');
    await me.press('Start the source');
    await me.gone('What kind of source is it?');
    await me.see('As it prints');
    expect(records().find((r) => r.record.ISBN)?.record).toMatchObject({
      type: 'book',
      ISBN: '978-3-16-148410-0',
    });
  });

  it('keeps a source when the page behind its DOI fails, and says so', async () => {
    await me.capture('https://doi.org/10.5555/nophone');
    await me.see('van der Zee 2015', '.tray');
    await me.see('No copy of the page was kept', '.tray');
    const { record } = records().find((r) => r.record.DOI === '10.5555/nophone')!;
    expect(record).toMatchObject({
      type: 'chapter',
      page: '88-109',
      editor: [{ family: 'Osei', given: 'Kofi' }],
    });
    expect([record.URL, record.accessed]).toEqual([undefined, undefined]);
  });

  it('can be stopped, and leaves nothing', async () => {
    const before = sources();
    await me.capture('https://slow.example/other');
    await me.press('Stop', '.tray');
    await me.see('The capture was cancelled.', '.tray');
    expect(sources()).toBe(before);
  });
});
