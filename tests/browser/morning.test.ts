/**
 * A morning’s work: twenty captures are checked, proofed, filed and found again, once by mouse and once by keyboard alone.
 * Every run has a library of its own.
 */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { KeyInput } from 'puppeteer-core';
import { startApp, until, visit, type App, type Person } from './app';

const CAPTURES = [
  'estuaryshore.example/articles/12-2-101',
  'estuaryshore.example/articles/12-2-117',
  'estuaryshore.example/articles/12-2-131',
  'estuaryshore.example/articles/12-2-140',
  'dataharbour.example/datasets/tidepond-cores',
  'dataharbour.example/software/tidegauge',
  'shoreconf.example/2018/papers/14',
  'openpreprints.example/abs/2403.01234',
  'shorewords.example/encyclopedia/tide-mill',
  'filmloft.example/films/last-grind',
  'soundcast.example/episodes/31',
  'news.portledger.example/2024/01/09/sluice-vote.html',
  'northsound.example/reports/ponds-2020',
  'smallhydro.example/7/1/2',
  'maproom.example/sheets/long-sound-1841',
  'longsoundwalks.example/posts/backwards',
  'longsoundwalks.example/posts/thirty-one-ponds',
  'kuestenhefte.example/hefte/5/muehlen',
  'harbourcouncil.example/guides/dressing',
  'livingreviews.example/tide-gates',
].map((address) => `https://${address}`);

let app: App;
let me: Person;
beforeEach(async () => {
  app = await startApp();
  me = await visit(app);
  await me.open('/');
});
afterEach(async () => {
  await me.page.browser().close();
  await app.stop();
});

const count = (sql: string) => app.rows<{ n: number }>(sql)[0]!.n;
const unchecked = () => count('SELECT count(*) AS n FROM source WHERE checked IS NULL AND binned IS NULL');

async function key(name: KeyInput, ...held: KeyInput[]): Promise<void> {
  for (const one of held) await me.page.keyboard.down(one);
  await me.page.keyboard.press(name);
  for (const one of held.reverse()) await me.page.keyboard.up(one);
}
/** Goes on with the Tab key until what has these words, or this label, has the focus. */
async function tabTo(words: string, inside = 'body'): Promise<void> {
  for (let i = 0; i < 500; i++) {
    const there = await me.page.evaluate(
      (w, within) => {
        const at = document.activeElement as HTMLElement | null;
        if (!at?.closest(within)) return false;
        const labels = [...((at as HTMLInputElement).labels ?? [])].map((l) => l.textContent?.trim());
        const said = [...labels, at.getAttribute('aria-label'), at.textContent?.replace(/\s+/g, ' ').trim()];
        return said.some((one) => one === w || one?.startsWith(`${w} `));
      },
      words,
      inside,
    );
    if (there) return;
    await me.page.keyboard.press('Tab');
  }
  throw new Error(`“${words}” is not reached with the Tab key`);
}
/** The same to what a selector is of. */
async function tabInto(selector: string): Promise<void> {
  await me.page.waitForSelector(selector);
  for (let i = 0; i < 500; i++) {
    if (await me.page.evaluate((s) => document.activeElement?.matches(s) ?? false, selector)) return;
    await me.page.keyboard.press('Tab');
  }
  throw new Error(`${selector} is not reached with the Tab key`);
}
const focused = (selector: string) =>
  until(`the focus on ${selector}`, () =>
    me.page.evaluate((s) => document.activeElement?.matches(s) ?? false, selector),
  );

/** What is true at the end of a morning, however it was worked through. */
async function isDone(): Promise<void> {
  expect(unchecked()).toBe(0);
  expect(count('SELECT count(*) AS n FROM filing')).toBe(20);
  const sought = await me.page.$eval('main', (e) => (e as HTMLElement).innerText);
  expect(sought).toContain('Eel grass');
}

describe('a morning’s work', () => {
  it('is done by mouse', async () => {
    await me.page.evaluate((text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      document
        .querySelector('[aria-label="What to capture"]')!
        .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, CAPTURES.join('\n'));
    await until('twenty sources', async () => unchecked() === 20);
    await me.page.click('nav.path a[href="/intake"]');
    await me.see('1 of 20 to check');
    // The first is changed where its reference shows it, and gets a slip of the pen.
    await (await me.page.waitForSelector('.printed [data-field="title"]'))!.click();
    await focused('#f-title');
    await key('End');
    await me.page.keyboard.type('.');
    await key('Tab');
    await me.see('Saved.', '.toasts');
    for (let left = 20; left > 0; left--) {
      await me.see(`of ${left} to check`);
      await me.press('Looks right');
      await until('one less', async () => unchecked() === left - 1);
    }
    await me.see('Everything is checked');
    await me.press('Proof', 'nav.path');
    await me.press('Full stop at the end of a title', 'nav.groups');
    await me.see('Full stop at the end of a title', '.opened');
    await me.press('Mend 1 source');
    await me.see('Mended in 1 source: Full stop at the end of a title.', '.toasts');
    expect(app.rows("SELECT title FROM source WHERE title LIKE '%.'")).toEqual([]);
    await me.choose('Project', 'New project');
    await me.type('Name', 'Thesis');
    await me.press('Make the project');
    await me.see('Thesis', '.sub');
    await me.choose('Project', 'My library');
    await me.page.click('nav.path a[href="/sources"]');
    await me.see('20 in the library');
    await (await me.page.waitForSelector('.row [aria-label^="Select "]'))!.click();
    await me.press('Select all 20');
    await me.see('20 selected', '.bar');
    await me.click('#place-in');
    await me.press('Thesis', '[aria-label="Place the selected in"][role=dialog]');
    await me.see('Filed in Thesis.', '.toasts');
    await me.choose('Project', 'Thesis');
    await me.see('20 in this project');
    await me.type('Search everything', 'eel grass');
    await key('Enter');
    await me.see('Eel grass', 'section[aria-label=Sources]');
    await isDone();
  });

  it('is done by keyboard alone', async () => {
    await me.page.evaluate((text) => navigator.clipboard.writeText(text), CAPTURES.join('\n'));
    await key('c', 'Alt');
    await focused('[aria-label="What to capture"]');
    await key('v', 'Control');
    await until('twenty sources', async () => unchecked() === 20);
    await key('2', 'Alt');
    await me.see('1 of 20 to check');
    await tabInto('#f-title');
    await key('End');
    await me.page.keyboard.type('.');
    await key('Tab');
    await me.see('Saved.', '.toasts');
    for (let left = 20; left > 0; left--) {
      await me.see(`of ${left} to check`);
      // The button first, then its key: a single key is for who does not type just then.
      if (left === 20) await tabTo('Looks right');
      await key(left === 20 ? 'Enter' : 'y');
      await until('one less', async () => unchecked() === left - 1);
    }
    await me.see('Everything is checked');
    await key('k', 'Control');
    await me.page.waitForSelector('dialog[open] input:focus');
    await me.page.keyboard.type('go to proof');
    await me.see('Go to Proof', 'dialog[open]');
    await key('Enter');
    await me.see('findings in the library');
    await me.see('Full stop at the end of a title', 'nav.groups');
    await tabTo('Full stop at the end of a title', 'nav.groups');
    await key('Enter');
    // Its group may have been open before; when it has come the focus is where it was, and one goes on from there.
    await me.page.waitForFunction(() => location.search.includes('check='));
    await focused('nav.groups [aria-current]');
    await me.see('Mend 1 source', '.opened');
    await tabTo('Mend 1 source');
    await key('Enter');
    await me.see('Mended in 1 source: Full stop at the end of a title.', '.toasts');
    expect(app.rows("SELECT title FROM source WHERE title LIKE '%.'")).toEqual([]);
    await tabTo('Project');
    // The first letter takes it, and the field of the name has the focus.
    await key('N');
    await me.page.waitForSelector('dialog[open] input:focus');
    await me.page.keyboard.type('Thesis');
    await key('Enter');
    await me.see('Thesis', '.sub');
    await tabTo('Project');
    await me.see('in Thesis', '.sub');
    await key('M');
    await me.see('findings in the library', '.sub');
    await key('3', 'Alt');
    await me.see('20 in the library');
    await tabInto('.row');
    await key('Home');
    await key('End', 'Shift');
    await me.see('20 selected', '.bar');
    await tabTo('Place in');
    // Who only comes by opens nothing.
    expect(await me.page.$('[aria-label="Place the selected in"][role=dialog]')).toBeNull();
    await key('Enter');
    // Who goes on before it is open goes by it.
    await me.see('Thesis', '[aria-label="Place the selected in"][role=dialog]');
    await tabTo('Thesis', '[aria-label="Place the selected in"][role=dialog]');
    await key('Enter');
    await me.see('Filed in Thesis.', '.toasts');
    await key('/');
    await focused('[aria-label="Search everything"]');
    await me.page.keyboard.type('eel grass');
    await key('Enter');
    await me.see('Eel grass', 'section[aria-label=Sources]');
    await isDone();
  });
});
