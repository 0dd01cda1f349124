import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';
import type { KeyInput } from 'puppeteer-core';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.open('/');
  await me.capture('https://marshletters.example/articles/3-1-7');
  await me.see('Ferreira', '.tray .got');
  await me.capture('https://repository.northsound.example/handle/1/5120');
  await me.press('Keep both', '.tray');
  await me.see('Surely one you have', '.tray');
  const [copy] = app.rows<{ id: string }>('SELECT id FROM copy');
  await me.open(`/copies/${copy!.id}`);
  await me.selectInPage('Sediment is not the limit here');
  await me.press('Keep passage');
  await me.see('Sediment', '.card');
  await me.press('Put away', '.tray header');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const VIEWS = () => {
  const [source] = app.rows<{ id: string }>('SELECT id FROM source');
  const [copy] = app.rows<{ id: string }>('SELECT id FROM copy');
  return [
    '/',
    '/intake',
    '/sources',
    `/sources/${source!.id}`,
    `/copies/${copy!.id}`,
    '/passages',
    '/outline',
    '/draft',
    '/duplicates',
    '/duplicates/sure',
    '/duplicates/spellings',
    '/references',
    '/import',
    '/bin',
    '/leads',
    '/search?q=marsh',
    '/notes',
    '/tags',
    '/tags/news',
    '/people',
    '/styles?beside=ieee',
    '/proof',
    '/ways-in',
    '/capture',
  ];
};

/** Presses a key with another held. */
async function holding(
  held: 'Alt' | 'Control' | 'Shift',
  key: import('puppeteer-core').KeyInput,
): Promise<void> {
  await me.page.keyboard.down(held);
  await me.page.keyboard.press(key);
  await me.page.keyboard.up(held);
}

describe('every view', () => {
  /** What of the rules is another matter where only the colours are others. */
  const COLOURS = { type: 'rule', values: ['color-contrast', 'link-in-text-block'] };
  const ALL = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] };
  /** What axe finds wrong on the page as it is. */
  async function violations(runOnly: typeof ALL): Promise<string[]> {
    const axe = await readFile(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
    await me.page.evaluate(axe);
    return me.page.evaluate(async (only) => {
      const { axe } = window as unknown as {
        axe: {
          run(
            context: object,
            options: object,
          ): Promise<{
            violations: {
              id: string;
              impact: string;
              nodes: { target: string[]; failureSummary: string }[];
            }[];
          }>;
        };
      };
      const result = await axe.run({ exclude: [['iframe']] }, { runOnly: only });
      return result.violations.map(
        (v) =>
          `${v.id}: ${v.nodes
            .slice(0, 3)
            .map((n) => `${n.target.join(' ')} ${n.failureSummary.split('\n')[1] ?? ''}`)
            .join(' | ')}`,
      );
    }, runOnly);
  }

  it.each([
    ['light', 1280, ALL],
    ['dark', 1280, COLOURS],
    ['light', 390, ALL],
  ] as const)(
    'fits, and has no accessibility violation that axe finds, %s, %i pixels wide',
    async (light, width, rules) => {
      await me.page.setViewport({ width, height: 800 });
      const found: string[] = [];
      await me.page.evaluate((l) => localStorage.setItem('retexa-light', l), light);
      for (const view of VIEWS()) {
        await me.open(view);
        await me.page.waitForFunction(() => !document.querySelector('.reference .waiting'));
        found.push(...(await violations(rules)).map((v) => `${view} ${v}`));
        // Nothing is scrolled sideways.
        const wide = await me.page.evaluate(() => document.documentElement.scrollWidth);
        if (wide > width + 2) found.push(`${view} is ${wide} pixels wide`);
      }
      await me.open('/sources');
      await me.press('Columns');
      await me.press('Which columns');
      await me.see('Findings', '[aria-label="Which columns"]');
      found.push(...(await violations(rules)).map((v) => `columns ${v}`));
      await me.open('/sources');
      const dialogs = [
        ['?', 'dialog .columns'],
        ['n', 'dialog select'],
        ['Control+k', '[aria-label="List of commands"] input'],
      ] as const;
      for (const [keys, inside] of dialogs) {
        const [key, held] = keys.split('+').reverse() as [KeyInput, KeyInput?];
        if (held) await me.page.keyboard.down(held);
        await me.page.keyboard.press(key);
        if (held) await me.page.keyboard.up(held);
        await me.page.waitForSelector(inside);
        found.push(...(await violations(rules)).map((v) => `dialog of ${keys} ${v}`));
        await me.page.keyboard.press('Escape');
        await me.page.waitForFunction(() => !document.querySelector('dialog[open]'));
      }
      await me.page.evaluate(() => localStorage.setItem('retexa-light', 'light'));
      await me.page.setViewport({ width: 1280, height: 800 });
      expect(found).toEqual([]);
    },
  );
});

describe('the shell', () => {
  it('says what a sign does to who points at it or comes to it by keys, and covers nothing', async () => {
    await me.open('/sources');
    const tip = '[role=tooltip]';
    await me.page.hover('button[aria-label="Keys"]');
    await me.see('every command: Ctrl+K', tip);
    // Whatever it lies over is what a press there meets.
    expect(
      await me.page.$eval(tip, (element) => {
        const box = element.getBoundingClientRect();
        const under = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
        return box.width > 20 && !element.contains(under);
      }),
    ).toBe(true);
    await me.page.keyboard.press('Escape');
    await me.page.waitForSelector(tip, { hidden: true });
    await me.page.focus('button[aria-label="Dark colours"]');
    await me.page.keyboard.press('Tab');
    await me.see('every command: Ctrl+K', tip);
    await me.page.keyboard.press('Tab');
    await me.page.waitForFunction(
      (selector) => !document.querySelector(selector)?.textContent?.includes('every command'),
      {},
      tip,
    );
    await me.page.hover('nav.path a[href="/intake"]');
    await me.see('Intake (', tip);
    // What it was of goes with its view, under a pointer that rests.
    await me.page.click('nav.path a[href="/leads"]');
    await me.see('Leads', 'h1');
    await me.page.click('nav.path a[href="/sources"]');
    await me.see('Sources', 'h1');
    const mark = await me.page.waitForSelector('.row [data-mark]');
    await mark!.hover();
    await me.page.waitForSelector(tip);
    await me.page.evaluate(() => history.back());
    await me.see('Leads', 'h1');
    await me.page.waitForFunction((selector) => !document.querySelector(selector), {}, tip);
  });

  it('shows live counts, and follows what happens in another window', async () => {
    await me.open('/sources');
    await me.see('2 in the library');
    const other = await visit(app, me.page.browser());
    await other.open('/');
    await other.capture('https://news.portledger.example/2023/03/14/last-miller.html');
    await other.see('Raman & Oakes 2023', '.tray');
    await other.leave();
    await me.page.bringToFront();
    await me.see('3 in the library');
    await me.see('Raman, P., & Oakes, T. (2023, March 14)', '.row');
  });

  it('refuses to save over a change made in another window, and shows the new state', async () => {
    const [source] = app.rows<{ id: string; revision: number }>('SELECT id, revision FROM source');
    const answer = await fetch(`${app.url}/api/sources/${source!.id}`, {
      method: 'PATCH',
      headers: { origin: app.url, 'content-type': 'application/json' },
      body: JSON.stringify({ base: source!.revision - 1, fields: { volume: '99' } }),
    });
    expect(answer.status).toBe(409);
    expect(((await answer.json()) as { message: string }).message).toContain('changed somewhere else');
    expect(app.rows('SELECT revision FROM source WHERE id = ?', source!.id)).toEqual([
      { revision: source!.revision },
    ]);
  });

  it('works with the keyboard: help, going places, lists', async () => {
    await me.open('/');
    await me.page.keyboard.press('?');
    await me.see('Anywhere', 'dialog');
    await me.page.keyboard.press('Escape');
    await me.gone('Anywhere');
    await holding('Alt', 'Digit3');
    await me.see('as they print in');
    await me.page.keyboard.press('ArrowDown');
    await me.page.keyboard.press('Space');
    await me.see('1 selected', '.bar');
    await holding('Shift', 'ArrowUp');
    await me.see('2 selected', '.bar');
    // What is selected stays so while one opens a source and comes back.
    await me.page.keyboard.press('End');
    await me.page.keyboard.press('Enter');
    await me.see('Proof', '.printed');
    await me.page.keyboard.press('Escape');
    await me.see('2 selected', '.bar');
    await me.page.keyboard.press('Escape');
    await me.gone('1 selected');
    await me.page.keyboard.press('/');
    await me.page.keyboard.type('last miller');
    await me.page.keyboard.press('Enter');
    await me.see('found for “last miller”');
    await me.page.waitForSelector('section[aria-label=Sources] .source [data-field]');
  });

  it('finds every action by its name, and lets single keys be changed and switched off', async () => {
    await me.open('/sources');
    await holding('Control', 'KeyK');
    await me.page.waitForSelector('[aria-label="List of commands"] input');
    await me.page.keyboard.type('leads');
    await me.see('Go to Leads', 'dialog');
    await me.page.keyboard.press('Enter');
    await me.page.waitForFunction(() => location.pathname === '/leads');
    await me.page.waitForFunction(() => !document.querySelector('dialog'));
    await me.page.keyboard.press('?');
    await me.press('Change the key for Start a source by hand', 'dialog');
    await me.page.keyboard.press('/');
    await me.see('/ is for “Search everything” already.', 'dialog');
    await me.page.keyboard.press('+');
    await me.page.keyboard.press('Escape');
    await me.gone('Anywhere');
    await me.page.keyboard.press('+');
    await me.see('Start by hand', 'dialog');
    await me.page.keyboard.press('Escape');
    await me.page.waitForFunction(() => !document.querySelector('dialog'));
    await me.page.keyboard.press('?');
    await me.click('dialog label:has([role=switch])');
    await me.page.keyboard.press('Escape');
    await me.gone('Anywhere');
    await me.page.keyboard.press('?');
    await me.page.keyboard.press('+');
    expect(await me.page.$('dialog')).toBeNull();
    await me.page.evaluate(() => localStorage.removeItem('retexa-keys'));
  });

  it('goes on with a dozen tabs open: one of them listens for all', async () => {
    const browser = me.page.browser();
    const [source] = app.rows<{ id: string }>("SELECT id FROM source WHERE title LIKE 'Salt%'");
    const tabs: Person[] = [];
    for (let i = 0; i < 11; i++) {
      const tab = await visit(app, browser);
      await tab.open(i % 2 ? '/sources' : `/sources/${source!.id}`);
      tabs.push(tab);
    }
    const last = tabs[10]!;
    await last.page.bringToFront();
    await last.type('Volume', '33');
    await last.page.keyboard.press('Enter');
    await last.see('Saved.', '.toasts');
    await last.see('Marsh Letters, 33(1–2)', '.printed');
    const { held = [] } = await last.page.evaluate(() => navigator.locks.query());
    expect(held.filter((lock) => lock.name === 'retexa-live')).toHaveLength(1);
    await tabs[3]!.page.bringToFront();
    await tabs[3]!.see('33(1–2)', '.row');
    // The one that listens is closed; another takes over.
    await me.open('/sources');
    for (const tab of tabs.slice(0, 10)) await tab.leave();
    await last.page.bringToFront();
    await last.type('Volume', '3');
    await last.page.keyboard.press('Enter');
    await last.see('Marsh Letters, 3(1–2)', '.printed');
    await me.page.bringToFront();
    await me.see('3(1–2)', '.row');
    await last.leave();
  });

  it('undoes and does again what was done in the view, by its keys', async () => {
    const [source] = app.rows<{ id: string }>("SELECT id FROM source WHERE title LIKE 'Salt%'");
    await me.open(`/sources/${source!.id}`);
    await me.type('Issue', '4');
    await me.page.keyboard.press('Enter');
    await me.see('Marsh Letters, 3(4)', '.printed');
    await me.see('Saved.', '.toasts');
    await holding('Control', 'KeyZ');
    await me.see('Marsh Letters, 3(1–2)', '.printed');
    await holding('Control', 'KeyY');
    await me.see('Marsh Letters, 3(4)', '.printed');
    await holding('Control', 'KeyZ');
    await me.see('Marsh Letters, 3(1–2)', '.printed');
  });

  it('refuses a date that is none, aloud, and keeps what was typed', async () => {
    const [source] = app.rows<{ id: string; revision: number }>(
      "SELECT id, revision FROM source WHERE title LIKE 'Salt%'",
    );
    await me.open(`/sources/${source!.id}`);
    await me.type('Date', '2023-13-01');
    await me.page.keyboard.press('Enter');
    await me.see('There is no month 13. Write the year, the month and the day, as in 2021-11-03. Not saved.');
    expect(app.rows('SELECT revision FROM source WHERE id = ?', source!.id)).toEqual([
      { revision: source!.revision },
    ]);
    await me.type('Date', '2021');
    await me.page.keyboard.press('Enter');
    await me.gone('Not saved.');
  });

  it('says when the server is not reached, and sends what was typed when it is back', async () => {
    const [source] = app.rows<{ id: string }>("SELECT id FROM source WHERE title LIKE 'Salt%'");
    await me.open(`/sources/${source!.id}`);
    await app.kill();
    await me.type('Volume', '9');
    await me.page.keyboard.press('Enter');
    await me.see('The server is not reached. What you type stays here, and is sent when it is back.');
    await app.start();
    await me.see('Marsh Letters, 9(1–2)', '.printed');
    await me.gone('The server is not reached.');
    await me.type('Volume', '3');
    await me.page.keyboard.press('Enter');
    await me.see('Marsh Letters, 3(1–2)', '.printed');
  });

  it('finds among sources while typing, blanks and pauses included', async () => {
    await me.open('/sources');
    const address = (words: string) =>
      until(words, () => me.page.evaluate((q) => new URLSearchParams(location.search).get('q') === q, words));
    await me.type('Find in these sources', 'last ');
    await address('last');
    await me.page.keyboard.type('miller');
    await address('last miller');
    await me.see('1 found');
    await me.press('Show all');
    await until('an empty field', () =>
      me.page.$eval('[aria-label="Find in these sources"]', (f) => (f as HTMLInputElement).value === ''),
    );
  });

  it('searches everything, narrows it, and leads to the words in their place', async () => {
    await me.type('Search everything', 'sediment');
    await me.page.keyboard.press('Enter');
    await me.see('Sediment is not the limit here', 'section[aria-label=Passages]');
    await me.page.click('section[aria-label="In the text of copies"] .hit');
    await me.page.waitForFunction(
      () =>
        document
          .querySelector('iframe')
          ?.contentDocument?.querySelector('mark.drawn')
          ?.textContent?.toLowerCase() === 'sediment',
    );
    await me.type('Search everything', 'qqqq');
    await me.page.keyboard.press('Enter');
    await me.see('Nothing has “qqqq”');
  });

  it('makes a project, scopes everything to it, and prints in its style', async () => {
    await me.open('/');
    await me.choose('Project', 'New project');
    await me.type('Name', 'A paper');
    await me.page.click('dialog [aria-label^="Citing style"]');
    await me.type('Find a style by name', 'vancouver');
    await me.page.waitForSelector('dialog [data-style=vancouver]');
    await me.press('Vancouver', 'dialog');
    await me.press('Make the project');
    await me.see('A paper', '.sub');
    await me.gone('Citing style');
    await me.see('Begin with something you read');
    await me.capture('10.5555/shr.9.33');
    await me.see('Sato 2020', '.tray');
    await me.open('/sources');
    await me.see('1 in this project, as they print in Vancouver');
    await me.see('Sato Y. Turbines in old wheelhouses. Small Hydropower Review [Internet]. 2020', '.row');
    await me.choose('Project', 'Change A paper');
    await me.type('Name', 'One paper');
    await me.page.click('dialog [aria-label^="Citing style"]');
    await me.type('Find a style by name', 'modern language');
    // Enter takes the first, once what was typed has been looked for.
    await me.page.waitForFunction(
      () =>
        document.querySelector('dialog [data-style]')?.getAttribute('data-style') ===
        'modern-language-association',
    );
    await me.page.keyboard.press('Enter');
    await me.press('Keep the changes');
    await me.see('One paper is changed.', '.toasts');
    await me.see('1 in this project, as they print in MLA');
    await me.choose('Project', 'Change One paper');
    await me.type('Name', 'A paper');
    // A style says the language it is written for, which is the project's by one press.
    await me.page.click('dialog [aria-label^="Citing style"]');
    await me.type('Find a style by name', 'cite them right');
    await me.click('dialog [data-style=harvard-cite-them-right]');
    await me.press('Written for English (UK): print in it', 'dialog');
    await me.gone('Written for', 'dialog');
    await me.press('Keep the changes');
    await me.see('1 in this project, as they print in Harvard, Cite Them Right');
    expect(app.rows('SELECT style, locale FROM project')).toEqual([
      { style: 'harvard-cite-them-right', locale: 'en-GB' },
    ]);
    await me.choose('Project', 'My library');
    await me.see('4 in the library');
  });

  it('puts a project away, and in the bin; both are undone, and it comes back from the bin', async () => {
    const aside = () =>
      app.rows('SELECT put_away IS NOT NULL AS away, binned IS NOT NULL AS bin FROM project');
    await me.open('/');
    await me.choose('Project', 'A paper');
    await me.see('A paper', '.sub');
    await me.choose('Project', 'Change A paper');
    await me.press('Put it away');
    await me.see('A paper is put away.', '.toasts');
    expect(aside()).toEqual([{ away: 1, bin: 0 }]);
    await me.see('A paper', 'optgroup');
    await me.press('Undo', '.toasts');
    await until('it to be taken up again', async () => me.page.$('optgroup').then((e) => !e));
    expect(aside()).toEqual([{ away: 0, bin: 0 }]);
    await me.choose('Project', 'Change A paper');
    await me.press('Put it in the bin');
    await me.see('A paper is in the bin.', '.toasts');
    await me.open('/bin');
    await me.see('A paper (1 source)');
    await me.press('Bring it back');
    await me.see('The project is back.');
    await me.see('The bin is empty');
    expect(aside()).toEqual([{ away: 0, bin: 0 }]);
    expect(app.rows('SELECT source_id FROM filing')).toHaveLength(1);
    await me.choose('Project', 'My library');
    // Chosen, before one goes on.
    await until('the whole library', async () =>
      (await me.page.cookies()).every(({ name }) => name !== 'retexa-project'),
    );
  });

  it('files a selection in a project; undo takes out only what was put in', async () => {
    const filings = () => app.rows('SELECT source_id FROM filing').length;
    expect(filings()).toBe(1);
    await me.open('/sources');
    await me.see('4 in the library');
    for (let i = 0; i < 4; i++) {
      await me.page.keyboard.press('Space');
      await me.page.keyboard.press('ArrowDown');
    }
    await me.see('4 selected', '.bar');
    await me.click('#place-in');
    await me.press('A paper', '[aria-label="Place the selected in"][role=dialog]');
    await me.see('Filed in A paper.');
    expect(filings()).toBe(4);
    await me.press('Undo', '.toasts');
    await me.gone('Filed in A paper.');
    await until('the undo', async () => filings() === 1);
    await me.type('Tag the selected', 'ponds');
    await me.page.keyboard.press('Enter');
    await me.see('Tagged ponds.');
    expect(app.rows('SELECT tag FROM source_tag')).toHaveLength(4);
  });

  const putInBin = async (words: string, name: string) => {
    await me.open(`/sources?q=${words}`);
    await me.see(name, '.row');
    await me.page.keyboard.press('Space');
    await me.press('Put in the bin', '.bar');
  };

  it('bins sources with undo, and brings them back from the bin', async () => {
    await putInBin('turbines', 'Sato');
    await me.see('Nothing fits');
    await me.press('Undo', '.toasts');
    await me.see('Sato', '.row');
    await me.page.keyboard.press('Space');
    await me.press('Put in the bin', '.bar');
    await me.open('/bin');
    await me.see('Sato 2020');
    await me.press('Bring it back');
    await me.see('The bin is empty');
  });

  it('deletes for good only what is told twice', async () => {
    await putInBin('raman', 'Raman');
    await me.open('/bin');
    await me.press('Empty the bin…');
    await me.see('1 source (with 1 copy) will be deleted for good.', 'dialog');
    // Asked anew in the very moment the dialogue is gone, which its late events must not close again.
    await me.page.evaluate(() => {
      const click = (words: string) =>
        [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === words)!.click();
      new MutationObserver((_, observer) => {
        if (document.querySelector('dialog')) return;
        observer.disconnect();
        click('Delete for good…');
      }).observe(document.body, { childList: true, subtree: true });
      click('Leave it in the bin');
    });
    await me.see('Delete the source for good?', 'dialog');
    await me.see('This cannot be undone.', 'dialog');
    await me.press('Delete for good', 'dialog');
    await me.see('The bin is empty');
    expect(app.rows("SELECT id FROM source WHERE title LIKE '%miller%'")).toEqual([]);
    await me.open('/search?q=last%20miller');
    await me.see('Nothing has “last miller”');
  });

  it('brings an earlier revision of a record back', async () => {
    await me.open('/sources?q=turbines');
    await me.see('Sato', '.row');
    await me.page.keyboard.press('Enter');
    await me.see('Proof', '.printed');
    await me.type('Title', 'Turbines');
    await me.page.keyboard.press('Enter');
    await me.see('Sato, Y. (2020). Turbines. Small', '.printed');
    await me.press('History');
    await me.see('edited', '.revisions');
    await me.see('title', '.revisions');
    await me.page.$$eval('.revisions button', (all) => (all.at(-1) as HTMLElement).click());
    await me.see('Sato, Y. (2020). Turbines in old wheelhouses.', '.printed');
  });

  it('answers a wrong address and a wrong id with a page that helps', async () => {
    await me.page.goto(`${app.url}/nowhere`);
    await me.see('There is no page at this address');
    await me.page.goto(`${app.url}/sources/none`);
    await me.see('This source is not in the library');
    await me.press('Go to the Desk');
    await me.see('What waits');
    // Programs are told too. The last is half of a surrogate pair, which is no text.
    for (const [path, status, said] of [
      ['/nowhere', 404, 'There is no page at this address.'],
      ['/sources/none', 404, 'This source is not in the library.'],
      ['/sources/%ED%A0%80', 400, 'This address cannot be read.'],
    ] as const) {
      const answer = await fetch(app.url + path);
      expect({ path, status: answer.status }).toEqual({ path, status });
      expect(await answer.text()).toContain(said);
    }
  });
});
