/** Capturing while the server is not reached: it waits in the browser, and is sent once when the server is back. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let ada: Person;
beforeAll(async () => {
  app = await startApp();
  ada = await visit(app);
});
afterAll(async () => {
  await ada.leave();
  await app.stop();
});

const ARTICLE = 'https://marshletters.example/articles/3-1-7';
const count = (table: string) => app.rows<{ n: number }>(`SELECT count(*) AS n FROM ${table}`)[0]!.n;

describe('while the server is not reached', () => {
  it('what is typed into the capture field waits, and is sent when it is back', async () => {
    await ada.open('/sources');
    await app.kill();
    await ada.capture(ARTICLE);
    await ada.see('It waits in this browser');
    await ada.see('one capture of yours waits in this browser until the server is reached');
    await app.start();
    await ada.see('A capture that waited is sent.');
    await until('the page', async () => count('source') === 1);
    await ada.see('Marsh Letters');
    await ada.gone('waits in this browser until');
    expect(count('job')).toBe(1);
  });

  it('a page is there to capture in, and what it kept is sent from it, nothing twice', async () => {
    await ada.open('/notes');
    // The page for capturing is there once the browser has put it aside.
    await ada.page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await ada.open('/notes');
    await app.kill();
    await ada.page.goto(`${app.url}/leads?q=x`).catch(() => undefined);
    await ada.see('The server is not reached');
    await ada.type('An address, a DOI, an ISBN, a reference, or a thought', 'Ask Ravi about the toll books');
    await ada.press('Keep it');
    await ada.see('Kept in this browser.');
    await ada.type(
      'An address, a DOI, an ISBN, a reference, or a thought',
      'https://tidefolk.example/2021/eels',
    );
    await ada.press('Keep it');
    await ada.see('2 captures of yours wait in this browser');
    // Called away: it is there still.
    await ada.page.goto(`${app.url}/away`).catch(() => undefined);
    await ada.see('2 captures of yours wait in this browser');
    await app.start();
    await ada.see('The server is back');
    await ada.see('2 that waited are sent.');
    expect(app.rows('SELECT body FROM note')).toEqual([{ body: 'Ask Ravi about the toll books' }]);
    expect(count('sent_once')).toBe(3);
    expect(count('job')).toBe(2);
    await ada.press('Go on');
    await ada.see('What waits');
  });

  it('what the server does not take stays, with why, until it is thrown away', async () => {
    await ada.open('/sources');
    await app.kill();
    await ada.page.$eval('input[aria-label="What to capture"]', (field) => {
      (field as HTMLInputElement).value = 'tide'.repeat(12_000);
      field.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await ada.page.focus('input[aria-label="What to capture"]');
    await ada.page.keyboard.press('Enter');
    await ada.see('It waits in this browser');
    await app.start();
    await ada.see('the server did not take one');
    await ada.see('The request could not be understood');
    await ada.page.$eval('.waiting button', (button) => (button as HTMLElement).click());
    await ada.gone('the server did not take one');
  });
});
