import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

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
    await me.see('Surely one you have: Ferreira, Ng & Ó Súilleabháin 2021 (same DOI', '.tray');
    await quote('https://marshletters.example/articles/3-1-7', 'Sediment is not the limit here');
    await quote('https://repository.northsound.example/handle/1/5120', 'Deposited by the authors');
    await me.open('/sources');
    await me.see('Twice in the library?', '.row');
    await me.open('/references?scope=library');
    await me.see('2 to ask about', 'aside[aria-label="Before it goes out"]');
    await me.press('Twice in the list?', '.entry');
    await me.see('Surely one work');
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
    await me.see('The sources are as they were');
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

  it('is undone after an edit, too: the edit stays, and is named', async () => {
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
    await me.see('What was edited since stays: Ferreira, Ng & Ó Súilleabháin 2021: volume');
    expect(living()).toBe(2);
    const [kept] = app.rows<{ record: string }>('SELECT record FROM source WHERE id = ?', survivor!.id);
    expect((JSON.parse(kept!.record) as { volume: string }).volume).toBe('5');
  });
});

/** Pastes references on the import page. */
async function paste(text: string, added: number) {
  const before = living();
  await me.importPasted(text);
  // Imports before it have said the same words.
  await until('the import to end', async () => living() === before + added);
  await me.see(`${added} sources added`);
}

describe('a group of four', () => {
  const one = (key: string, fields: string) =>
    `@article{${key}, title={Tide mills and their leases}, author={Pell, Margaret}, year={1990}, journal={Shore and Sea}, volume={12}, ${fields}}`;

  it('is decided by keys alone', async () => {
    await paste(
      [
        one('m1', 'pages={7-24}'),
        one('m2', 'pages={7-24}, number={2}'),
        one('m3', 'pages={7}, number={2}'),
        one('m4', 'pages={7-24}, abstract={Leases of mills.}'),
      ].join(' '),
      4,
    );
    const before = state();
    await me.open('/duplicates');
    await me.see('of 2', '.sub');
    await me.see('4 sources');
    await me.see('Pell, M. (1990). Tide mills and their leases. Shore and Sea', '.prints');
    const rows = await me.page.$$eval('tbody tr th', (all) => all.map((t) => t.textContent?.trim() ?? ''));
    expect(rows).toContain('Abstract');
    for (let i = 0; i < rows.indexOf('Abstract'); i++) await me.page.keyboard.press('ArrowDown');
    await me.page.keyboard.press('e');
    await me.page.waitForSelector('input[aria-label="Abstract, typed anew"]:focus');
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('a');
    await me.page.keyboard.up('Control');
    await me.page.keyboard.type('Of mills and leases.');
    await me.page.keyboard.press('Enter');
    await me.see('typed by you');
    await me.page.keyboard.press('m');
    await me.see('Merged into one.', '.toasts');
    // The view says what is left; until it does, its old words would be taken for those after undo.
    await me.see('1 of 1', '.sub');
    const merged = app.rows<{ record: string }>(
      "SELECT record FROM source WHERE merged_into IS NULL AND title LIKE 'Tide mills and%'",
    );
    expect(merged).toHaveLength(1);
    expect(JSON.parse(merged[0]!.record)).toMatchObject({
      page: '7-24',
      issue: '2',
      abstract: 'Of mills and leases.',
    });
    // Every citekey leads to the one there is.
    expect(app.rows("SELECT alias FROM alias WHERE alias LIKE 'm%'")).toHaveLength(3);
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('z');
    await me.page.keyboard.up('Control');
    await me.see('of 2', '.sub');
    expect(state()).toEqual(before);
  });

  it('can be told that one of it is another work', async () => {
    await me.open('/duplicates');
    await me.see('4 sources');
    await me.press('Keep this out');
    await me.see('Kept out of the group', '.toasts');
    await me.see('3 sources');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(3);
    await me.press('Undo', '.toasts');
    await me.see('4 sources');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
  });

  it('can be told that one of it belongs to the others in another way', async () => {
    await me.page.select('thead select', 'review');
    await me.see('Linked. The sources say so.', '.toasts');
    await me.see('3 sources');
    expect(app.rows("SELECT * FROM relation WHERE kind = 'review' AND person_id IS NOT NULL")).toHaveLength(
      3,
    );
    await me.press('Undo', '.toasts');
    await me.see('4 sources');
    expect(app.rows('SELECT * FROM relation WHERE person_id IS NOT NULL')).toHaveLength(0);
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
  });
});

describe('forty that are surely twice', () => {
  it('are merged in one step, but for those unticked, and taken apart again by one undo', async () => {
    const entries = Array.from({ length: 80 }, (_, i) => {
      const n = Math.floor(i / 2);
      const doi = `10.5555/forty.${n}`;
      return `@article{f${i}, title={${i % 2 ? 'A study of sluice number' : 'A STUDY OF SLUICE NUMBER'} ${n}}, author={Osei, Kofi}, year={2001}, journal={Shore}, volume={${n + 1}}, doi={${i % 2 ? doi : `https://doi.org/${doi.toUpperCase()}`}}}`;
    });
    await paste(entries.join('\n'), 80);
    const before = state();
    await me.open('/duplicates');
    await me.press('All 41 sure ones at once');
    await me.see('41 groups', '.sub');
    await me.see('A study of sluice number 7', 'main');
    await me.page.click('[aria-label="Merge Pell 1990"]');
    await me.press('Merge 40 groups');
    await me.see('40 groups merged.', '.toasts');
    await me.see('1 group', '.sub');
    expect(
      app.rows("SELECT id FROM source WHERE merged_into IS NOT NULL AND title LIKE '%sluice%'"),
    ).toHaveLength(40);
    await me.press('Undo', '.toasts');
    await me.see('41 groups', '.sub');
    expect(state()).toEqual(before);
    expect(app.rows('PRAGMA foreign_key_check')).toEqual([]);
  });
});

describe('works that only look alike', () => {
  const ponds = () =>
    app.rows<{ id: string }>("SELECT id FROM source WHERE title IN ('Ponds', 'PONDS') ORDER BY id");

  it('kept apart, they are not suggested again, until that is undone', async () => {
    await paste(
      '@book{a, title={Ponds}, author={Pell, M.}, year={1990}, publisher={X}} @book{b, title={PONDS}, author={Pell, Margaret}, year={1990}, publisher={X}} @book{c, title={Ponds}, author={Pell, M.}, year={1994}, edition={2}, publisher={X}} @book{d, title={Ponds}, author={Pell, M.}, year={1990}, volume={2}, publisher={X}}',
      4,
    );
    const [a] = ponds();
    await me.open(`/duplicates?with=${a!.id}`);
    // The second edition and the second volume are other works.
    await me.see('One work?');
    await me.see('of 43', '.sub');
    expect(await me.page.$$eval('thead a', (all) => all.length)).toBe(2);
    await me.press('Keep apart');
    await me.see('They will not be suggested again');
    await me.see('of 42', '.sub');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(1);
    await me.press('Undo', '.toasts');
    await me.see('of 43', '.sub');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
    // Later, too: pairs kept apart can be seen, and compared again.
    await me.open(`/duplicates?with=${a!.id}`);
    await me.press('Keep apart');
    await me.see('of 42', '.sub');
    await me.open('/duplicates');
    await me.press('1 pair kept apart');
    await me.see('Ponds', '[aria-label="Kept apart"]');
    await me.press('Compare again');
    await me.see('of 43', '.sub');
    expect(app.rows('SELECT * FROM apart')).toHaveLength(0);
  });

  it('are linked, both say so, and a list that holds both warns', async () => {
    const [a, , c] = ponds().map((row) => row.id);
    // Judged by what the records say.
    await me.open(`/sources/${c}`);
    await me.see('Belongs with Pell 1990, Ponds: another edition');
    await me.press('It does not');
    await me.see('No longer linked.', '.toasts');
    await me.press('Undo', '.toasts');
    await me.see('another edition');
    // Said by a person.
    await me.open(`/duplicates?with=${a}`);
    await me.see('One work?');
    await me.page.select('select[aria-label="Two works that belong together"]', 'reprint');
    await me.see('Linked. Both sources say so.', '.toasts');
    await me.see('of 42', '.sub');
    await me.open(`/sources/${a}`);
    await me.see('PONDS: reprint');
    await me.open(`/references?scope=selection#ids=${a},${c}`);
    await me.see('Cited beside another edition: Pell 1990', '.entry');
  });

  it('are left as they are when the whole library is looked through again', async () => {
    const kept = () => [
      app.rows('SELECT source_id, group_id FROM likeness_member ORDER BY source_id'),
      app.rows('SELECT a_id, b_id, kind FROM relation ORDER BY a_id, b_id'),
    ];
    const before = kept();
    await me.open('/duplicates');
    await me.press('Look through all again');
    await me.see(`${living()} looked through: 42 groups`, '.tray');
    expect(kept()).toEqual(before);
  });
});

describe('one name in several spellings', () => {
  const writtenBy = (family: string) =>
    app
      .rows<{ given: string; n: number }>(
        "SELECT a.value ->> 'given' AS given, count(*) AS n FROM source, json_each(record -> 'author') a WHERE a.value ->> 'family' = ? AND merged_into IS NULL AND binned IS NULL GROUP BY 1 ORDER BY 1",
        family,
      )
      .map(({ given, n }) => `${given} ${n}`);

  it('is written one way in the sources that are ticked, and back by one undo', async () => {
    await paste(
      '@book{i1, title={Sluices of Lisbon}, author={Iglésias, Inês Maria}, year={1990}, publisher={X}} @book{i2, title={Of grain}, author={Iglesias, I. M.}, year={1991}, publisher={X}} @book{i3, title={Dams and ditches}, author={Iglesias, I. M.}, year={1992}, publisher={X}} @book{i4, title={Mudflats}, author={Iglésias, Rui}, year={1993}, publisher={X}}',
      4,
    );
    await me.open('/duplicates');
    await me.press('2 names in several spellings');
    await me.press('Iglésias, Inês Maria');
    await me.see('One name?', 'section');
    await me.see('initials for given names', 'section');
    await me.see('What changes: 2 sources', 'section');
    await me.page.click('[aria-label="Change Iglesias 1991"]');
    await me.press('Write it so in 1 source');
    await me.see('Written alike in 1 source.', '.toasts');
    expect(writtenBy('Iglesias')).toEqual(['I. M. 1']);
    expect(writtenBy('Iglésias')).toEqual(['Inês Maria 2', 'Rui 1']);
    await me.press('Undo', '.toasts');
    await me.see('What changes: 2 sources', 'section');
    expect(writtenBy('Iglesias')).toEqual(['I. M. 2']);
    await me.page.click('[aria-label="Change Iglesias 1991"]');
    await me.see('Write it so in 2 sources', 'section');
  });

  it('is typed anew by keys alone, where none of the spellings is right', async () => {
    await me.page.keyboard.press('e');
    await me.see('What changes: 3 sources', 'section');
    await me.page.keyboard.type('Iglésias, Inês M.');
    await me.page.keyboard.press('Enter');
    await me.see('Written alike in 3 sources.', '.toasts');
    expect(writtenBy('Iglésias')).toEqual(['Inês M. 3', 'Rui 1']);
    await me.gone('Iglésias, Inês Maria', 'main');
  });

  it('is kept as two names where it is two, until that is undone', async () => {
    await me.open('/duplicates/spellings?of=people');
    await me.see('Pell, Margaret', 'nav');
    await me.press('Another name', 'section');
    await me.see('Every person is written one way');
    await me.press('1 pair kept apart');
    await me.press('Compare again');
    await me.see('Pell, Margaret', 'nav');
  });

  it('is a container, too', async () => {
    await paste(
      '@article{j1, title={Toll and tide}, author={Weir, Anna}, year={1990}, journal={J. Mod. Hist.}} @article{j2, title={Millers at law}, author={Weir, Anna}, year={1991}, journal={Journal of Modern History}}',
      2,
    );
    await me.open('/duplicates/spellings');
    await me.press('Containers 1');
    await me.see('abbreviated', 'section');
    await me.press('Write it so in 1 source');
    await me.see('Every container is written one way');
    expect(app.rows("SELECT id FROM source WHERE record ->> 'container-title' LIKE 'J. Mod%'")).toEqual([]);
  });
});

describe('sources one knows to be one work', () => {
  it('are merged from a selection, whatever they were judged to be, and apart again', async () => {
    await paste(
      '@book{s1, title={The drowned granary}, author={Quill, Ida}, year={1931}, publisher={Mole Press}} @misc{s2, title={Verdronken graanschuur, een vertaling}, author={Quill, I.}, note={translated}, url={https://shore.example/granary}}',
      2,
    );
    const before = living();
    await me.open('/sources?q=quill');
    for (const label of ['Quill 1931', 'Quill']) {
      await me.page.waitForSelector(`[aria-label="Select ${label}"]`);
      await me.page.click(`[aria-label="Select ${label}"]`);
    }
    await me.see('2 selected', '.bar');
    await me.press('More with the selected');
    await me.press('Merge into one…');
    await me.see('2 you chose');
    await me.see('nothing but your choice says so');
    await me.see('The drowned granary', '.prints');
    await me.press('Merge into one');
    await me.see('Merged into one.', '.toasts');
    // One is at the source they became, and it has what either had.
    await me.see('As it prints');
    expect(living()).toBe(before - 1);
    const [kept] = app.rows<{ record: string }>(
      "SELECT record FROM source WHERE record ->> 'title' = 'The drowned granary' AND merged_into IS NULL",
    );
    expect(JSON.parse(kept!.record)).toMatchObject({
      publisher: 'Mole Press',
      URL: 'https://shore.example/granary',
    });
    await me.press('Undo', '.toasts');
    await until('both', async () => living() === before);
  });
});
