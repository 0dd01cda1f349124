/** Changes of hundreds of sources: under way in the tray, while one works on, and taken back as a whole. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { booksOf, startApp, until, visit, type App, type Person } from './app';

const OF = 620;

let app: App;
let me: Person;

beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.importPasted(booksOf(OF));
  await until('the sources', async () => count('SELECT count(*) AS n FROM source') === OF);
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const count = (sql: string) => app.rows<{ n: number }>(sql)[0]!.n;
const tagged = () => count("SELECT count(*) AS n FROM source_tag WHERE tag = 'quay'");

async function selectAll() {
  await me.open('/sources');
  await me.see(`${OF} in the library`);
  await me.page.focus('.row');
  await me.page.keyboard.press('Space');
  await me.press(`Select all ${OF}`);
  await me.see(`${OF} selected`, '.bar');
}

describe('many sources', () => {
  it('are tagged as a job; it is said when it is done, and taken back from there and by the key', async () => {
    await selectAll();
    await me.type('Tag the selected', 'quay');
    await me.page.keyboard.press('Enter');
    await me.see('Tagged quay.', '.toasts');
    await me.see(`${OF} sources tagged quay`, '.tray');
    expect(tagged()).toBe(OF);
    await me.press('Undo', '.toasts');
    await me.see(`${OF} sources as before`, '.tray');
    expect(tagged()).toBe(0);
    // Done again by the key, and taken back from the tray after the page was left.
    await me.page.focus('.row');
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('y');
    await me.page.keyboard.up('Control');
    await until('the tags', async () => tagged() === OF);
    await me.open('/leads');
    await me.press('Put away', '.tray li:nth-child(2)');
    await me.press('Undo', '.tray li:first-child');
    await until('no tags', async () => tagged() === 0);
  });

  it('go to the bin as a job, and come back as one', async () => {
    await selectAll();
    await me.press('Put in the bin', '.bar');
    await me.see(`${OF} sources are in the bin.`, '.toasts');
    expect(count('SELECT count(*) AS n FROM source WHERE binned IS NOT NULL')).toBe(OF);
    await me.press('Undo', '.toasts');
    await until(
      'all back',
      async () => count('SELECT count(*) AS n FROM source WHERE binned IS NULL') === OF,
    );
  });

  it('have a tag that is called otherwise, and are of an import that is taken back, as jobs', async () => {
    await selectAll();
    await me.type('Tag the selected', 'quay');
    await me.page.keyboard.press('Enter');
    await until('the tags', async () => tagged() === OF);
    await me.open('/tags');
    await me.press('Rename quay');
    await me.type('New name of quay', 'wharf');
    await me.press('Rename', 'main form');
    await me.see(`quay is called wharf now, in ${OF} sources.`, '.toasts');
    expect(tagged()).toBe(0);
    await me.press('Undo', '.toasts');
    await until('the tags as before', async () => tagged() === OF);

    await me.open('/import');
    await me.press('Take this import back');
    await me.see(`The import is taken back: ${OF} sources.`, '.toasts');
    expect(count('SELECT count(*) AS n FROM source WHERE binned IS NOT NULL')).toBe(OF);
    await me.press('Undo', '.toasts');
    await until(
      'all back',
      async () => count('SELECT count(*) AS n FROM source WHERE binned IS NULL') === OF,
    );
  });
});
