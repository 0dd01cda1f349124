import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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

/** Everything a merge may touch, without the two numbers that only grow. */
const state = () => ({
  sources: app.rows(
    'SELECT id, record, citekey, checked, binned, merged_into, title_key, doi FROM source ORDER BY id',
  ),
  passages: app.rows('SELECT id, source_id, copy_id, exact FROM passage ORDER BY id'),
  copies: app.rows('SELECT id, source_id, sha256 FROM copy ORDER BY id'),
  filings: app.rows('SELECT project_id, source_id FROM filing ORDER BY project_id, source_id'),
  aliases: app.rows('SELECT alias, source_id FROM alias ORDER BY alias'),
  search: app.rows(
    "SELECT s.subject_id, body FROM search JOIN search_subject s ON s.id = search.rowid WHERE s.kind = 'source' ORDER BY s.subject_id",
  ),
  tags: app.rows('SELECT source_id, tag FROM source_tag ORDER BY source_id, tag'),
});
const living = () => app.rows('SELECT id FROM source WHERE binned IS NULL AND merged_into IS NULL').length;

async function quote(address: string, words: string) {
  const [copy] = app.rows<{ id: string }>('SELECT id FROM copy WHERE address = ?', address);
  await me.open(`/copies/${copy!.id}`);
  await me.selectInPage(words);
  await me.press('Keep passage');
  await me.see(words.slice(0, 40), '.card');
}

describe('the same work from two sites', () => {
  let before: ReturnType<typeof state>;

  it('is said at once, in the tray, in Intake, beside the list and in Duplicates', async () => {
    await me.open('/');
    await me.capture('https://marshletters.example/articles/3-1-7');
    await me.see('Ferreira', '.tray .got');
    await me.capture('https://repository.northsound.example/handle/1/5120');
    await me.see('You have this already: Ferreira, Ng & Ó Súilleabháin 2021 (same DOI', '.tray');
    expect(living()).toBe(1);
    await me.press('Keep both', '.tray');
    await me.see('Looks like one you have: Ferreira, Ng & Ó Súilleabháin 2021 (same DOI', '.tray');
    await quote('https://marshletters.example/articles/3-1-7', 'Sediment is not the limit here');
    await quote('https://repository.northsound.example/handle/1/5120', 'Deposited by the authors');
    await me.open('/sources');
    await me.see('Twice in the library?', '.row');
    await me.open('/references?scope=library');
    await me.see('2 to ask about', 'aside[aria-label="Before it goes out"]');
    await me.press('Twice in the list?', '.entry');
    await me.see('Almost surely the same');
    await me.see('1 of 1');
  });

  it('shows both side by side with the merged reference as it will print, and follows the picks', async () => {
    await me.see('Ferreira, A., Ng, T. H., & Ó Súilleabháin, C. (2021). Salt marsh recovery', '.prints');
    await me.see('2 passages, 2 copies');
    const rows = await me.page.$$eval('tbody tr th', (all) => all.map((t) => t.textContent));
    expect(rows).toEqual(expect.arrayContaining(['Abstract', 'Address']));
    await me.page.$$eval('tbody tr', (all) => {
      const row = all.find((r) => r.querySelector('th')?.textContent?.trim() === 'Address');
      row?.querySelectorAll<HTMLElement>('td button')[1]?.click();
    });
    await me.see('your choice');
    before = state();
  });

  it('becomes one, with the passages and copies of both', async () => {
    await me.page.keyboard.press('m');
    await me.see('Nothing twice');
    expect(living()).toBe(1);
    const [survivor] = app.rows<{ id: string; record: string }>(
      'SELECT id, record FROM source WHERE merged_into IS NULL',
    );
    expect(new Set(app.rows('SELECT source_id FROM passage').map((r) => r.source_id))).toEqual(
      new Set([survivor!.id]),
    );
    expect(new Set(app.rows('SELECT source_id FROM copy').map((r) => r.source_id))).toEqual(
      new Set([survivor!.id]),
    );
    expect((JSON.parse(survivor!.record) as { URL: string }).URL).toBe(
      'https://repository.northsound.example/handle/1/5120',
    );
    const [absorbed] = app.rows<{ id: string }>('SELECT id FROM source WHERE merged_into IS NOT NULL');
    await me.open(`/sources/${absorbed!.id}`);
    expect(me.page.url()).toContain(survivor!.id);
    await me.see('Copies');
  });

  it('is undone exactly', async () => {
    await me.open('/duplicates');
    await me.press('1 merge can be undone');
    await me.press('Undo', '.merges');
    await me.see('Both sources are as they were');
    await me.see('1 of 1');
    expect(state()).toEqual(before);
    expect(app.rows('PRAGMA foreign_key_check')).toEqual([]);
  });

  it('is undone from the note at once, too, and merged again', async () => {
    await me.press('Merge into one');
    await me.see('Merged into one.', '.toasts');
    await me.see('Nothing twice');
    await me.press('Undo', '.toasts');
    await me.see('1 of 1');
    expect(state()).toEqual(before);
  });

  it('refuses to undo over a later edit, and says what to do', async () => {
    await me.press('Merge into one');
    await me.see('Nothing twice');
    const [survivor] = app.rows<{ id: string }>('SELECT id FROM source WHERE merged_into IS NULL');
    await me.open(`/sources/${survivor!.id}`);
    await me.see('As it prints');
    await me.type('Volume', '5');
    await me.page.keyboard.press('Enter');
    await me.see('Saved.');
    await me.open('/duplicates');
    await me.press('1 merge can be undone');
    await me.press('Undo', '.merges');
    await me.see('was changed since');
    expect(living()).toBe(1);
  });
});

describe('works that only look alike', () => {
  it('kept apart, they are not suggested again, until that is undone', async () => {
    await me.open('/import');
    await me.press('Or paste references');
    await me.type(
      'References to import',
      '@book{a, title={Ponds}, author={Pell, M.}, year={1990}, publisher={X}} @book{b, title={PONDS}, author={Pell, Margaret}, year={1990}, publisher={X}} @book{c, title={Ponds}, author={Pell, M.}, year={1990}, edition={2}, publisher={X}} @book{d, title={Ponds}, author={Pell, M.}, year={1990}, volume={2}, edition={3}, publisher={X}}',
    );
    await me.press('Import what is pasted');
    await me.see('4 sources added');
    await me.open('/duplicates');
    // Editions 2 and 3 differ from each other, but neither is told apart from the two without an edition.
    await me.see('Likely the same');
    const label = await me.page.$eval('h1 + .sub', (e) => e.textContent ?? '');
    const total = Number(/of (\d+)/.exec(label)![1]);
    expect(total).toBe(5);
    await me.press('Keep apart');
    await me.see('They will not be suggested again');
    await me.see(`1 of ${total - 1}`);
    expect(app.rows('SELECT * FROM apart')).toHaveLength(1);
    await me.press('Undo', '.toasts');
    await me.see(`of ${total}`, '.head');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
    // Later, too: pairs kept apart can be seen, and compared again.
    await me.press('Keep apart');
    await me.see(`1 of ${total - 1}`);
    await me.open('/duplicates');
    await me.press('1 pair kept apart');
    await me.see('Ponds', '[aria-label="Kept apart"]');
    await me.press('Compare again');
    await me.see(`of ${total}`, '.head');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
  });
});
