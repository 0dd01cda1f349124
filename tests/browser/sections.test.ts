/** Arranging sources: sections by keys and by mouse, narrowing by what there is, reading, and one field of many. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { downloaded, startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  const book = (n: number, title: string, who: string, press: string) =>
    `@book{k${n}, title={${title}}, author={${who}}, publisher={${press}}, year={${1990 + n}}, language={en}}`;
  await me.importPasted(
    [
      book(1, 'Ledgers of the shore', 'Pell, Margaret', 'Mole Pr.'),
      book(2, 'Gates that close themselves', 'Ng, Tsz Ho', 'Mole Pr.'),
      book(3, 'Silt and the law', 'Costa, Inês', 'Quern Press'),
      book(4, 'What grew back', 'Pell, Margaret', 'Quern Press'),
    ].join(' '),
  );
  await me.see('4 sources added');
  const { id } = await me.page.evaluate(async () => {
    const response = await fetch('/api/projects', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Thesis', style: 'apa', locale: 'en-US' }),
    });
    return (await response.json()) as { id: string };
  });
  expect(id).toBeTruthy();
  // A new project is the one chosen; here all of the library is looked at.
  await me.open('/sources');
  await me.choose('Project', 'My library');
  await me.see('4 in the library');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

/** The tree as it is seen: each line with how deep it stands, its name and how many sources it has. */
const tree = () =>
  me.page.$$eval('[role=treeitem]', (all) =>
    all.map(
      (e) =>
        '.'.repeat(Number(e.getAttribute('aria-level')) - 1) +
        e.querySelector('.name')!.textContent +
        (e.querySelector('.n') ? ` ${parseInt(e.querySelector('.n')!.textContent!)}` : ''),
    ),
  );
const treeIs = (expected: string[]) =>
  until(
    `the tree ${expected.join(' | ')}`,
    async () => (await tree()).join('|') === expected.join('|'),
  ).catch(async (e: unknown) => {
    throw new Error(`${String(e)}; it is ${(await tree()).join(' | ')}`);
  });
const keys = async (...pressed: string[]) => {
  for (const key of pressed) {
    const parts = key.split('+');
    for (const held of parts.slice(0, -1)) await me.page.keyboard.down(held as 'Alt');
    await me.page.keyboard.press(parts.at(-1) as 'Enter');
    for (const held of parts.slice(0, -1).reverse()) await me.page.keyboard.up(held as 'Alt');
  }
};
const named = async (name: string) => {
  await me.page.waitForSelector('input[aria-label="Name of the section"]:focus').catch(async () => {
    const at = await me.page.evaluate(() => document.activeElement?.outerHTML.slice(0, 200));
    throw new Error(`no field for ${name}; the focus is at ${at} in ${(await tree()).join(' | ')}`);
  });
  await me.page.keyboard.type(name);
  await me.page.keyboard.press('Enter');
};
const node = (name: string) =>
  until(`the line ${name}`, async () => {
    for (const handle of await me.page.$$('[role=treeitem]'))
      if ((await handle.$eval('.name', (e) => e.textContent)) === name) return handle;
    return undefined;
  });
const rows = () =>
  me.page.$$eval('.row a[href^="/sources/"]', (all) =>
    all.map((a) => /\((\d{4})\)/.exec(a.textContent!)![1]),
  );
const rowsAre = (expected: string[]) =>
  until(`the rows ${expected.join(', ')}`, async () => (await rows()).join() === expected.join()).catch(
    async (e: unknown) => {
      throw new Error(`${String(e)}; they are ${(await rows()).join(', ')}`);
    },
  );
/** Drags with the mouse from one element to a part of another, measured from its top. */
async function drag(from: string | import('puppeteer-core').ElementHandle, to: typeof from, share = 0.5) {
  const box = async (what: typeof from) =>
    (await (typeof what === 'string' ? (await me.page.waitForSelector(what))! : what).boundingBox())!;
  const [a, b] = [await box(from), await box(to)];
  await me.page.mouse.move(a.x + 90, a.y + a.height / 2);
  await me.page.mouse.down();
  await me.page.mouse.move(a.x + 96, a.y + a.height / 2 + 6, { steps: 3 });
  await me.page.mouse.move(b.x + 60, b.y + b.height * share, { steps: 8 });
  await until('where it would go', () =>
    me.page.evaluate(() => document.querySelector('[data-drop]:not([data-drop=""])') !== null),
  );
  await me.page.mouse.up();
}

describe('sections', () => {
  it('are made, moved, renamed, binned and brought back by keys alone', async () => {
    await me.open('/sources');
    await me.press('Sections');
    await treeIs(['Thesis', 'In no section']);
    await (await node('Thesis')).focus();
    await keys('Shift+Enter');
    await named('How it works');
    await treeIs(['Thesis', '.How it works 0', 'In no section']);
    await keys('Shift+Enter');
    await named('Gates');
    await keys('Shift+Enter');
    await named('Why they closed');
    await treeIs(['Thesis', '.How it works 0', '.Gates 0', '.Why they closed 0', 'In no section']);
    await keys('ArrowUp', 'Alt+Shift+ArrowRight');
    await treeIs(['Thesis', '.How it works 0', '..Gates 0', '.Why they closed 0', 'In no section']);
    await until('the focus', () =>
      me.page.evaluate(() => document.activeElement?.querySelector('.name')?.textContent === 'Gates'),
    );
    await keys('F2');
    await named('Gates and ponds');
    await treeIs(['Thesis', '.How it works 0', '..Gates and ponds 0', '.Why they closed 0', 'In no section']);
    await keys('ArrowUp', 'ArrowLeft');
    await treeIs(['Thesis', '.How it works 0', '.Why they closed 0', 'In no section']);
    await keys('Delete');
    await treeIs(['Thesis', '.Why they closed 0', 'In no section']);
    await me.see('How it works is in the bin.');
    await keys('Control+KeyZ');
    await treeIs(['Thesis', '.How it works 0', '.Why they closed 0', 'In no section']);
    await (await node('How it works')).focus();
    await keys('ArrowRight');
    await treeIs(['Thesis', '.How it works 0', '..Gates and ponds 0', '.Why they closed 0', 'In no section']);
  });

  it('are filled by dragging, by what is selected, and put in an order', async () => {
    await drag('.row[data-index="1"]', await node('Gates and ponds'));
    await me.see('1 source placed in Gates and ponds.');
    await treeIs(['Thesis', '.How it works 1', '..Gates and ponds 1', '.Why they closed 0', 'In no section']);
    await me.page.focus('.row[data-index="0"]');
    await keys('Space', 'ArrowDown', 'ArrowDown', 'Space', 'ArrowDown', 'Space');
    await me.see('3 selected', '.bar');
    await me.click('#place-in');
    await me.press('§ Why they closed', '[aria-label="Place the selected in"][role=dialog]');
    await me.see('3 sources placed in Why they closed.');
    await treeIs(['Thesis', '.How it works 1', '..Gates and ponds 1', '.Why they closed 3', 'In no section']);
    await keys('Escape');
    await (await node('Why they closed')).click();
    await me.see('3 in this section');
    await rowsAre(['1993', '1991', '1994']);
    await me.page.focus('.row');
    await keys('Home', 'Alt+Shift+ArrowDown');
    await rowsAre(['1991', '1993', '1994']);
    await drag('.row[data-index="2"]', '.row[data-index="0"]', 0.1);
    await rowsAre(['1994', '1991', '1993']);
    await keys('Control+KeyZ');
    await rowsAre(['1991', '1993', '1994']);
    // What is seen is what prints, and the order of authors is one choice away.
    await me.choose('Order', 'By author');
    await rowsAre(['1993', '1991', '1994']);
    await me.press('Show all');
    await me.see('4 in the library');
  });
  it('are dragged under one another', async () => {
    await drag(await node('Gates and ponds'), await node('Why they closed'), 0.5);
    await treeIs(['Thesis', '.How it works 0', '.Why they closed 4', '..Gates and ponds 1', 'In no section']);
    await keys('Control+KeyZ');
    await treeIs(['Thesis', '.How it works 1', '..Gates and ponds 1', '.Why they closed 3', 'In no section']);
  });
});

describe('narrowing', () => {
  it('offers what there is with its counts, and each choice is part of the query', async () => {
    await me.open('/sources');
    await me.press('Narrow by…');
    await me.press('Pell, Margaret', '[aria-label="Narrow by"]');
    await me.see('2 found');
    expect(await me.page.$eval('input[aria-label="Find in these sources"]', (e) => e.value)).toBe(
      'person:"Pell, Margaret"',
    );
    await me.see('Person: Pell, Margaret');
    // The other people are still there to be chosen beside, with how many there would be.
    await me.press('Costa, Inês', '[aria-label="Narrow by"]');
    await me.see('3 found');
    await me.press('Person: Pell, Margaret');
    await me.see('1 found');
    await me.see('English 1', '[aria-label="Language"]');
    await me.press('Show all');
    await me.see('4 in the library');
  });
});

describe('reading', () => {
  it('is said of a source, seen in its row, and found again', async () => {
    const id = app.rows<{ id: string }>(`SELECT id FROM source WHERE year = 1992`)[0]!.id;
    await me.open(`/sources/${id}`);
    await me.choose('How far you are with it', 'Set aside');
    await me.see('Set aside.', '.toasts');
    await me.open('/sources?q=reading:aside');
    await me.see('1 found');
    await me.see('Set aside', '.row');
    await me.page.focus('.row');
    await keys('Space');
    await me.click('#change-them');
    await me.press('Reading: nothing said', '[aria-label="Change the selected"][role=dialog]');
    await me.see('Nothing fits');
    await keys('Control+KeyZ');
    await me.see('Set aside', '.row');
  });
});

describe('one field of many', () => {
  it('is changed in those that are left ticked, after what becomes of each was seen, and undone as one', async () => {
    await me.open('/sources');
    await me.page.focus('.row');
    await keys('Space');
    await me.press('Select all 4', '.bar');
    await me.see('4 selected', '.bar');
    await me.click('#change-them');
    await me.press('Change a field…', '[aria-label="Change the selected"][role=dialog]');
    await me.page.waitForSelector('dialog input[value="replace"]');
    await me.page.click('dialog input[value="replace"]');
    await me.choose('Field', 'Publisher');
    await me.type('Words there', 'mole pr.');
    await me.type('Words in their place', 'Mole Press');
    await me.see('That changes 2 of 4.', 'dialog');
    await me.page.click('dialog input[aria-label="Change Ng 1992"]');
    await me.press('Change 1', 'dialog');
    await me.see('Publisher changed in 1 source.');
    await me.page.waitForSelector('dialog[open]', { hidden: true });
    const publishers = () =>
      app
        .rows<{ p: string }>(`SELECT record ->> 'publisher' p FROM source ORDER BY year`)
        .map((r) => r.p)
        .join();
    expect(publishers()).toBe('Mole Press,Mole Pr.,Quern Press,Quern Press');
    await keys('Control+KeyZ');
    await until('the undo', async () => publishers() === 'Mole Pr.,Mole Pr.,Quern Press,Quern Press');
  });

  it('is brought back by itself from the history', async () => {
    const id = app.rows<{ id: string }>(`SELECT id FROM source WHERE year = 1993`)[0]!.id;
    await me.open(`/sources/${id}`);
    await me.type('Publisher', 'Quern and Daughters');
    await keys('Tab');
    await me.see('Quern and Daughters', '.margin');
    await me.page.click('.history');
    await me.see('Quern Press → Quern and Daughters', '.revisions');
    await me.press('Bring back publisher as it was before: Quern Press');
    await me.see('as it was.', '.toasts');
    await until('the value', async () =>
      app
        .rows<{ p: string }>(`SELECT record ->> 'publisher' p FROM source WHERE id = '${id}'`)
        .every((r) => r.p === 'Quern Press'),
    );
  });
});

describe('a title', () => {
  it('has words in italics by a key, seen in the reference before it is saved', async () => {
    const id = app.rows<{ id: string }>(`SELECT id FROM source WHERE year = 1994`)[0]!.id;
    await me.open(`/sources/${id}`);
    await me.see('What grew back', '.printed');
    await me.page.focus('#f-title');
    await me.page.$eval('#f-title', (e) => (e as HTMLInputElement).setSelectionRange(5, 9));
    await keys('Control+KeyI');
    expect(await me.page.$eval('#f-title', (e) => (e as HTMLInputElement).value)).toBe(
      'What <i>grew</i> back',
    );
    await keys('Control+KeyI');
    expect(await me.page.$eval('#f-title', (e) => (e as HTMLInputElement).value)).toBe('What grew back');
    await me.press('subscript', '.row:focus-within');
    await keys('Enter');
    await until('the title', async () =>
      app
        .rows<{ t: string }>(`SELECT record ->> 'title' t FROM source WHERE id = '${id}'`)
        .every((r) => r.t === 'What <sub>grew</sub> back'),
    );
    await keys('Control+KeyZ');
  });
});

describe('people', () => {
  it('are listed with their sources, and one is called otherwise everywhere, undone as one', async () => {
    await me.open('/people');
    await me.see('Pell, Margaret', '.names');
    await me.press('Rename Pell, Margaret');
    await me.see('Pell 1991. Ledgers of the shore', '.names');
    await me.type('New name of Pell, Margaret', 'Pell-Sandor, Margaret');
    await me.press('Rename in 2 sources');
    await me.see('Pell, Margaret is called Pell-Sandor, Margaret now, in 2 sources.');
    await me.see('Pell-Sandor, Margaret', '.names');
    await keys('Control+KeyZ');
    await me.gone('Pell-Sandor, Margaret', '.names');
    await me.press('Where they appeared');
    await me.see('No names yet');
  });
});

describe('what is seen', () => {
  it('is saved as a table of the columns shown', async () => {
    await me.open('/sources?q=year:1991-1993&sort=oldest');
    await me.see('3 found');
    await me.press('Columns');
    await me.press('Which columns');
    await me.press('Save as CSV', '[aria-label="Which columns"]');
    await me.see('3 rows saved.');
    const lines = (await downloaded(me, 'Sources.csv')).replace('\ufeff', '').trim().split('\r\n');
    expect(lines.slice(0, 2)).toEqual([
      'Creators,Year,Title,Appeared in,Citekey,Passages',
      expect.stringMatching(/^"Pell, Margaret",1991,Ledgers of the shore,/),
    ]);
    expect(lines).toHaveLength(4);
  });

  it('is drawn on the Desk, and each number leads to its sources', async () => {
    await me.open('/');
    await me.see('What the sections rest on');
    await me.page.waitForSelector('[aria-label^="Added by week"] .apexcharts-bar-area');
    await me.press('As a list', '.charts');
    await me.press('Why they closed', '.charts details[open]');
    await me.see('§ Why they closed');
    await me.see('3 in this section');
  });
});
