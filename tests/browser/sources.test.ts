import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HTTPRequest } from 'puppeteer-core';
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

const book = (n: number, title: string) =>
  `@book{k${n}, title={${title}}, author={Pell, Margaret}, publisher={Strand Press}, year={${1990 + n}}}`;

/** Types a query into the field of the list, as a person does. */
async function ask(query: string) {
  await me.page.focus('input[aria-label="Find in these sources"]');
  await me.page.keyboard.down('Control');
  await me.page.keyboard.press('KeyA');
  await me.page.keyboard.up('Control');
  await me.page.keyboard.type(query);
}

describe('finding one’s way in the sources', () => {
  it('asks in words and fields, best fit first, and says what cannot be asked', async () => {
    await me.importPasted(
      [
        ...Array.from({ length: 70 }, (_, i) => book(i, `Ledgers of the shore, part ${i + 1}`)),
        '@book{w, title={On Grain}, author={Ng, T.}, publisher={Quern Press}, year={1999}}',
        '@book{q, title={The Quern and the Pond}, author={Costa, I.}, publisher={Strand Press}, year={1998}}',
      ].join(' '),
    );
    await me.see('72 sources added');
    // Rows come printed, also where nobody has seen them before.
    const { items } = (await (await fetch(`${app.url}/api/sources?sort=newest`)).json()) as {
      items: { title: string; reference?: { text: string } }[];
    };
    expect(items).toHaveLength(72);
    for (const { title, reference } of items)
      expect(reference?.text.toLowerCase()).toContain(title.toLowerCase());
    const asked: string[] = [];
    const note = (request: HTTPRequest) => void asked.push(new URL(request.url()).pathname);
    me.page.on('request', note);
    await me.open('/search?q=ledgers');
    await me.see('Ledgers of the shore, part 1', 'section[aria-label=Sources]');
    me.page.off('request', note);
    expect(asked).not.toContain('/api/printed');
    await me.open('/sources');
    await ask('quern');
    await me.see('2 found');
    const rows = await until('both rows', async () => {
      const texts = await me.page.$$eval('.row', (all) => all.map((r) => r.textContent ?? ''));
      return texts.length === 2 && texts;
    });
    expect((rows as string[])[0]).toContain('The Quern');
    await ask('quern -author:ng');
    await me.see('1 found');
    await ask('year:soon');
    await me.see('year:soon is no year. Write year:1990-2005.');
    await me.page.click('#query-help');
    await me.see('words in a row', '[role=dialog]');
    await me.page.keyboard.press('Escape');
  });

  it('selects all that fit, seen or not, and tags them as one step', async () => {
    await ask('ledgers year:1990-2050');
    await me.see('61 found');
    await me.page.focus('.row');
    await me.page.keyboard.press('Space');
    await me.see('1 selected', '.bar');
    await me.press('Select all 61', '.bar');
    await me.see('61 selected', '.bar');
    await me.page.type('input[aria-label="Tag the selected"]', 'shore');
    await me.page.keyboard.press('Enter');
    await me.see('Tagged shore.', '.toasts');
    expect(app.rows("SELECT count(*) AS n FROM source_tag WHERE tag = 'shore'")).toEqual([{ n: 61 }]);
    await me.press('Undo', '.toasts');
    await until('the tags to be gone', async () => app.rows('SELECT * FROM source_tag').length === 0);
  });

  it('calls a tag otherwise everywhere, joins it with one that is there, and takes that back', async () => {
    const tagged = () =>
      app
        .rows<{ tag: string; n: number }>(
          'SELECT tag, count(*) AS n FROM source_tag GROUP BY tag ORDER BY tag',
        )
        .map(({ tag, n }) => `${tag} ${n}`);
    await me.open('/sources?q=quern');
    for (const [query, tag] of [
      ['quern', 'Grain'],
      ['ledgers year:1990', 'corn'],
    ]) {
      await ask(query!);
      await me.see(query === 'quern' ? '2 found' : '1 found');
      await me.page.focus('.row');
      await me.page.keyboard.press('Space');
      await me.see('1 selected', '.bar');
      await me.page.type('input[aria-label="Tag the selected"]', tag!);
      await me.page.keyboard.press('Enter');
      await me.see(`Tagged ${tag}.`, '.toasts');
      await me.press('Select none', '.bar');
    }
    expect(tagged()).toEqual(['Grain 1', 'corn 1']);
    await me.press('Tags', 'nav.path');
    await me.see('2 in the library');
    await me.press('Rename corn');
    await me.page.waitForSelector('input[aria-label="New name of corn"]:focus');
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('KeyA');
    await me.page.keyboard.up('Control');
    await me.page.keyboard.type('grain');
    await me.see('Grain is there already, on 1 source');
    await me.page.keyboard.press('Enter');
    await me.see('corn is called Grain now, in 1 source.', '.toasts');
    await me.see('1 in the library');
    expect(tagged()).toEqual(['Grain 2']);
    // The key takes back what was done in this view; other toasts may still be there.
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('KeyZ');
    await me.page.keyboard.up('Control');
    await me.see('2 in the library');
    expect(tagged()).toEqual(['Grain 1', 'corn 1']);
  });

  it('gives a tag a colour in a pattern and a group, which it has wherever it stands', async () => {
    await me.open('/tags');
    await me.press('How Grain looks');
    await me.page.$$eval('fieldset label', (all) =>
      (all as HTMLElement[]).find((l) => l.textContent!.trim() === 'moss')!.click(),
    );
    await me.choose('Pattern of Grain', 'stripes');
    await me.type('Group of Grain', 'What was ground');
    await me.press('Keep it so');
    await me.see('How Grain looks is kept.', '.toasts');
    await me.see('What was ground', 'h2');
    await me.see('In no group', 'main');
    await me.page.waitForSelector('.name .swatch.stripes');
    await me.open('/sources?q=tag:Grain');
    await me.page.waitForSelector('.row .swatch.stripes');
    await me.open('/tags');
    await me.press('Sources of any');
    await me.see('1 found');
    await me.open('/tags');
    await me.press('How Grain looks');
    await me.page.$$eval('fieldset label', (all) =>
      (all as HTMLElement[]).find((l) => l.textContent!.trim() === 'None')!.click(),
    );
    await me.press('Keep it so');
    await me.see('How Grain looks is kept.', '.toasts');
    await me.page.waitForSelector('.name .swatch', { hidden: true });
    await me.press('Undo', '.toasts');
    await me.page.waitForSelector('.name .swatch.stripes');
  });

  it('has a page for each tag with what it stands with, and narrows by a group of tags', async () => {
    await me.open('/tags');
    await me.press('Grain', 'main');
    await me.see('1 source, 0 passages in the library · What was ground');
    await me.page.waitForSelector('.sheet .reference [data-field]');
    await me.press('Rename Grain');
    await me.type('New name of Grain', 'Corn and grain');
    await me.press('Rename', 'main form');
    await me.page.waitForFunction(() => location.pathname === '/tags/Corn%20and%20grain');
    await me.see('Corn and grain', 'h1');
    await me.press('Undo', '.toasts');
    await until(
      'the old name',
      async () => app.rows("SELECT 1 FROM source_tag WHERE tag = 'Grain'").length === 1,
    );
    await me.open('/sources');
    await me.press('Narrow by…');
    await me.press('Any of What was ground');
    await me.see('1 found');
    await me.press('Any of What was ground');
    await me.gone('1 found');
  });

  it('says who is meant by a name, and writes one person’s names as one', async () => {
    await me.open('/people');
    const [first, second] = await me.page.$$eval('.names .name a.serif', (all) =>
      all.slice(0, 2).map((a) => a.textContent!.trim()),
    );
    await me.press(`ORCID of ${first}`);
    await me.type(`ORCID of ${first}`, '0000-0002-1825-0098');
    await me.press('Keep it');
    await me.see('This is no ORCID');
    await me.type(`ORCID of ${first}`, 'https://orcid.org/0000-0002-1825-0097');
    await me.press('Keep it');
    await me.see('ORCID 0000-0002-1825-0097', '.names');
    await me.press(`ORCID of ${second}`);
    await me.type(`ORCID of ${second}`, '0000000218250097');
    await me.press('Keep it');
    await me.see(`the same as ${first}`, '.names');
    await me.press('Undo', '.toasts');
    await me.gone(`the same as ${first}`, '.names');
  });

  it('keeps the keywords a source came with apart from its tags until they are taken', async () => {
    await me.importPasted(
      JSON.stringify([
        { id: 'kw', type: 'book', title: 'Of kiln and quay', author: [{ family: 'Moor', given: 'Ann' }], issued: { 'date-parts': [[1961]] }, publisher: 'Strand Press', keyword: 'Lime burning; quays; Grain' },
      ]),
    ); // prettier-ignore
    await me.see('1 source added');
    const [{ id }] = app.rows<{ id: string }>("SELECT id FROM source WHERE title = 'Of kiln and quay'") as [{ id: string }]; // prettier-ignore
    const tags = () => app.rows<{ tag: string }>('SELECT tag FROM source_tag WHERE source_id = ? ORDER BY tag', id).map((r) => r.tag); // prettier-ignore
    await me.open(`/sources/${id}`);
    await me.see('Keywords it came with');
    expect(tags()).toEqual([]);
    await me.press('Take quays as a tag');
    await until('one to be taken', async () => tags().join() === 'quays');
    await me.gone('+ quays');
    await me.press('Take all 2');
    await until('all to be taken', async () => tags().join() === 'Grain,Lime burning,quays');
    await me.gone('Keywords it came with');
    // They are its keywords all the same.
    expect(app.rows("SELECT record ->> 'keyword' AS k FROM source WHERE id = ?", id)).toEqual([{ k: 'Lime burning; quays; Grain' }]); // prettier-ignore
    await me.page.keyboard.press('Escape');
    await me.open('/sources?q=kiln');
    await me.page.focus('.row');
    await me.page.keyboard.press('Space');
    await me.see('1 selected', '.bar');
    await me.press('Put in the bin', '.bar');
    await me.see('The source is in the bin.', '.toasts');
  });

  it('says how far a source can be trusted and why, which stands under it in an annotated list', async () => {
    const [{ id }] = app.rows<{ id: string }>("SELECT id FROM source WHERE title = 'The Quern and the Pond'") as [{ id: string }]; // prettier-ignore
    const said = () =>
      JSON.parse(app.rows<{ c: string }>("SELECT record -> '$.retexa.credibility' AS c FROM source WHERE id = ?", id)[0]!.c ?? 'null'); // prettier-ignore
    await me.open(`/sources/${id}`);
    await me.press('Say how far, and why');
    await me.type('Who is behind it', 'The millers’ league');
    await me.page.keyboard.press('Tab');
    await until('the first answer to be kept', async () => said()?.behind === 'The millers’ league');
    await me.choose('Reviewed before it came out', 'Read by editors');
    await until('the second', async () => said()?.reviewed === 'editors');
    await me.choose('So it can be trusted', 'To be trusted with care');
    await me.type('Why', 'one mill only');
    await me.page.keyboard.press('Tab');
    await until(
      'all to be kept',
      async () => said()?.why === 'one mill only' && said()?.trust === 'with care',
    );
    await me.press('Done', '.record');
    const TEXT =
      'To be trusted with care: one mill only. Read by editors. Who is behind it: The millers’ league.';
    await me.see(TEXT, '.record');
    await me.open('/references?scope=library&under=credibility');
    await me.see(TEXT, '.entry');
    // What was last said is taken back alone.
    await me.open(`/sources/${id}`);
    await me.press('History');
    await me.see('how far it can be trusted', '.revisions');
    await me.press('Say otherwise');
    await me.type('Why', '');
    await me.page.keyboard.press('Tab');
    await until('the reason to be gone', async () => said()?.why === undefined);
    await me.press('Undo', '.toasts');
    await until('the reason to be back', async () => said()?.why === 'one mill only');
  });

  it('has titles in other languages, which stand behind its own in lists of those languages', async () => {
    const [{ id }] = app.rows<{ id: string }>("SELECT id FROM source WHERE title = 'The Quern and the Pond'") as [{ id: string }]; // prettier-ignore
    const told = () =>
      app.rows<{ c: string | null }>("SELECT record -> '$.custom.translations' AS c FROM source WHERE id = ?", id)[0]!.c; // prettier-ignore
    await me.open(`/sources/${id}`);
    await me.press('Add one', '.record');
    await me.choose('Its language', 'German');
    await me.type('Title in German', 'Mühlstein und Teich');
    await me.page.keyboard.press('Enter');
    await until('it to be kept', async () => told()?.includes('Mühlstein und Teich') ?? false);
    await me.see('Title, German', '.record');
    await me.gone('Mühlstein', '.margin .reference');
    await me.open(`/references?scope=library&locale=de-DE`);
    await me.see('The Quern and the Pond [Mühlstein und Teich]', '.entry');
    await me.open(`/sources/${id}`);
    await me.press('Take out', '.record');
    await until('it to be taken out', async () => told() === null);
    await me.press('Undo', '.toasts');
    await until('it to be back', async () => told() !== null);
    await me.press('History');
    await me.see('titles in other languages', '.revisions');
  });

  it('goes on to the next of the list without going back to it, by keys', async () => {
    await me.open('/sources?q=quern');
    await me.see('2 found');
    await me.see('The Quern', '.row');
    await me.page.focus('.row');
    await me.page.keyboard.press('Enter');
    await me.see('Costa 1998', 'h1');
    await me.see('1 of 2');
    await me.page.keyboard.press('ArrowRight');
    await me.see('Ng 1999', 'h1');
    await me.page.keyboard.press('ArrowLeft');
    await me.see('Costa 1998', 'h1');
    await me.page.keyboard.press('Escape');
    await me.see('2 found');
    expect(new URL(me.page.url()).searchParams.get('q')).toBe('quern');
  });

  it('shows the fields in use, and all of the kind when asked', async () => {
    await me.open('/sources?q=quern');
    await me.see('The Quern', '.row');
    await me.page.focus('.row');
    await me.page.keyboard.press('Enter');
    await me.see('Costa 1998', 'h1');
    await me.see('more of this kind', '.form');
    expect(await me.page.$('#f-abstract')).toBeNull();
    await me.page.keyboard.press('f');
    await me.page.waitForSelector('#f-abstract');
    await me.press('Only the fields in use', '.form');
    await until('the abstract to be away', async () => (await me.page.$('#f-abstract')) === null);
  });

  it('sets a title in sentence case, which is a revision', async () => {
    await me.press('Sentence case', '.form');
    await me.see('Saved.', '.toasts');
    await me.see('The quern and the pond', '.printed');
    expect(app.rows("SELECT why FROM revision WHERE why = 'sentence case'")).toHaveLength(1);
  });

  it('keeps a query by a name, which stands in the path with what it finds now', async () => {
    await me.open('/sources?q=ledgers&from=2000&to=2004');
    await me.see('5 found');
    await me.press('Keep this query');
    await me.page.waitForSelector('input[placeholder="Name of this query"]:focus');
    await me.page.keyboard.type('Late ledgers');
    await me.page.keyboard.press('Enter');
    await me.see('Kept as Late ledgers', '.toasts');
    await me.see('5', '.saved');
    await me.open('/');
    await me.press('Late ledgers', '.saved');
    await me.see('5 found');
    expect(new URL(me.page.url()).searchParams.get('q')).toBe('ledgers year:2000-2004');
    await me.press('Kept as Late ledgers: let go');
    await me.see('No longer kept: Late ledgers.', '.toasts');
    await me.gone('Late ledgers', 'nav.path');
    await me.press('Undo', '.toasts');
    await me.see('Late ledgers', '.saved');
  });

  it('answers a mistyped word with the near one', async () => {
    await me.open('/search?q=ledgres');
    await me.see('Near it, the library has');
    await me.press('ledgers', '.empty, main');
    await me.see('70', 'section[aria-label=Sources] h2');
  });
});
