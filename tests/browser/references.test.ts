import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, Packer, Paragraph } from 'docx';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readFormat } from '../../src/lib/core/formats';
import { downloaded, startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
let folder: string;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  folder = await mkdtemp(join(tmpdir(), 'retexa-files-'));
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

async function importFile(name: string, text: string) {
  const path = join(folder, name);
  await writeFile(path, text);
  await me.open('/import');
  const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
}
const citekeys = () =>
  app.rows<{ citekey: string }>('SELECT citekey FROM source ORDER BY citekey').map((r) => r.citekey);

describe('importing', () => {
  it('reads BibTeX, skips a broken entry and says where', async () => {
    await importFile(
      'refs.bib',
      `@article{ferreira2021, author = {Ferreira, Ana and Ng, Tsz Ho}, title = {Salt marsh recovery}, journal = {Marsh Letters}, volume = 3, number = {1}, pages = {7--24}, year = 2021}

@book{broken, title = {Never closed
}

@book{brandt2011, author = {Brandt, Hanne}, title = {Dredging and the Law}, edition = {3rd ed.}, publisher = {Foreshore Press}, year = {2011}, shelf = {A 4}}
`,
    );
    await me.see('2 sources added, 1 skipped');
    await me.see('line 3');
    await me.see('never closed');
    expect(citekeys()).toEqual(['brandt2011', 'ferreira2021']);
    const [brandt] = app.rows<{ record: string }>("SELECT record FROM source WHERE citekey = 'brandt2011'");
    expect((JSON.parse(brandt!.record) as { retexa: { kept: unknown } }).retexa.kept).toEqual({
      bibtex: { shelf: 'A 4' },
    });
  });

  it('reads RIS and CSL-JSON, keeps keys that are free and says when one was taken', async () => {
    await importFile(
      'more.ris',
      'TY  - THES\r\nID  - lindqvist\r\nAU  - Lindqvist, Maja\r\nTI  - Tide mills of the northern sounds\r\nPB  - University of Northsound\r\nPY  - 2016\r\nER  - \r\n',
    );
    await me.see('1 source added');
    await importFile(
      'items.json',
      JSON.stringify([
        { id: 'lindqvist', type: 'map', title: 'Chart of the Skerry', issued: { 'date-parts': [[1884]] } },
        'a title alone',
      ]),
    );
    await me.see('1 source added, 1 skipped');
    await me.see('citekey lindqvist was taken');
    expect(citekeys()).toContain('lindqvist');
    expect(citekeys()).toHaveLength(4);
  });

  it('refuses what it cannot read, in words, and adds nothing', async () => {
    await importFile('holiday.txt', 'Dear diary, we saw a mill.');
    await me.see('in no format Retexa reads', '.toasts');
    await importFile('empty.bib', '% nothing yet\n');
    await me.see('The file holds no references', '[aria-label="Import of empty.bib"]');
    expect(citekeys()).toHaveLength(4);
  });

  it('takes a whole import back', async () => {
    await importFile('extra.bib', '@book{one, title={One}, year=2001} @book{two, title={Two}, year=2002}');
    await me.see('2 sources added', '[aria-label="Import of extra.bib"]');
    await me.press('Take this import back', '[aria-label="Import of extra.bib"]');
    await me.see('The import is taken back: 2 sources.');
    expect(app.rows('SELECT id FROM source WHERE binned IS NULL')).toHaveLength(4);
    await me.press('Undo', '.toasts');
    await me.open('/sources');
    await me.see('6 in the library');
    await me.open('/import');
    await me.press('Take this import back', '[aria-label="Import of extra.bib"]');
    await me.see('The import is taken back: 2 sources.');
  });

  it('says what is here already, and merges, skips or keeps both as told; one undo takes it all back', async () => {
    const before = app.rows('SELECT id, record, citekey FROM source WHERE binned IS NULL ORDER BY id');
    await importFile(
      'again.bib',
      `@article{ferreiraNg, author = {Ferreira, Ana and Ng, Tsz Ho}, title = {Salt Marsh Recovery}, journaltitle = {Marsh Letters}, volume = 3, number = {1}, pages = {7--24}, date = {2021-11}, doi = {10.5555/ml.3.7}}

@book{brandtAgain, author = {Brandt, Hanne}, title = {Dredging and the Law}, edition = {3}, publisher = {Foreshore Press}, date = {2011}}

@thesis{lindqvistAgain, author = {Lindqvist, Maja}, title = {Tide mills of the northern sounds}, institution = {University of Northsound}, type = {phdthesis}}

@online{new2024, author = {Oduya, Tolu}, title = {Ponds restored}, url = {https://ponds.example/x}, date = {2024-05}}
`,
    );
    await me.see('3 of 4 entries are here already.');
    await me.see('Nothing is added yet.');
    await me.see('adds DOI 10.5555/ml.3.7');
    await me.see('takes date 2021-11 (yours: 2021)');
    await me.see('Perhaps the same, all');
    expect(app.rows('SELECT id FROM source WHERE binned IS NULL')).toHaveLength(before.length);
    const choose = (entry: string, answer: string) =>
      me.page.$$eval(
        'fieldset',
        (all, e, a) =>
          all
            .find((f) => f.textContent?.includes(e))!
            .querySelector<HTMLInputElement>(`input[value="${a}"]`)!
            .click(),
        entry,
        answer,
      );
    await choose('Ferreira', 'merge');
    await choose('Brandt', 'skip');
    await choose('Lindqvist', 'both');
    await me.press('Go on with the import');
    await me.see('2 sources added, 1 merged with what you had, 1 left out');
    await me.see('citekey ferreiraNg leads to ferreira2021');
    const record = (key: string) =>
      JSON.parse(
        app.rows<{ record: string }>(`SELECT record FROM source WHERE citekey = '${key}'`)[0]!.record,
      ) as {
        DOI?: string;
        issued?: unknown;
      };
    expect(record('ferreira2021').DOI).toBe('10.5555/ml.3.7');
    expect(record('ferreira2021').issued).toEqual({ 'date-parts': [[2021, 11]] });
    expect(record('new2024')).toMatchObject({ type: 'webpage' });
    await me.press('Take this import back');
    await me.see('The import is taken back: 3 sources.');
    await until(
      'as before',
      async () =>
        JSON.stringify(
          app.rows('SELECT id, record, citekey FROM source WHERE binned IS NULL ORDER BY id'),
        ) === JSON.stringify(before),
    );
  });

  it('is stopped in the middle, and nothing of the file is added', async () => {
    const before = citekeys().length;
    const many = Array.from(
      { length: 6_000 },
      (_, i) =>
        `@book{stopped${i}, author = {Pell, I.}, title = {Ledger ${i} of mill ${i}}, year = ${1500 + (i % 500)}}`,
    ).join('\n');
    await importFile('many.bib', many);
    await me.see('Adding', '[aria-label="Import of many.bib"]');
    // Pages are answered meanwhile, and see the library grow.
    await me.open('/sources');
    await me.see('in the library');
    expect(app.rows("SELECT id FROM job WHERE state = 'running'")).toHaveLength(1);
    await me.open('/import');
    await me.press('Stop');
    await me.see('The import was cancelled. Nothing of the file was added.');
    expect(citekeys()).toHaveLength(before);
  });

  it('takes pasted BibTeX in the capture field', async () => {
    await me.open('/');
    await me.capture('@misc{three, title={Three}, year=2003, howpublished={pamphlet}}');
    await me.see('Import it as references', '.hint');
    await me.press('Import', '.hint');
    await until('the entry', async () => citekeys().includes('three'));
  });
});

describe('the reference list', () => {
  it('prints the library in APA, then in other styles and languages', async () => {
    await me.open('/references');
    await me.see(
      'Ferreira, A., & Ng, T. H. (2021). Salt marsh recovery. Marsh Letters, 3(1), 7–24.',
      '.sheet',
    );
    await me.see('The edition holds “ed.” itself', '.sheet');
    await me.press('Citing style: APA, 7th edition');
    await me.type('Find a style by name', 'vancouver');
    await me.page.waitForSelector('[data-style="vancouver"]');
    await me.page.click('[data-style="vancouver"]');
    await me.see('Ferreira A, Ng TH. Salt marsh recovery. Marsh Letters. 2021;3(1):7–24.', '.sheet');
    await me.page.waitForSelector('.label');
    await me.open('/references?style=harvard-cite-them-right&locale=en-GB');
    await me.see(
      'Ferreira, A. and Ng, T.H. (2021) ‘Salt marsh recovery’, Marsh Letters, 3(1), pp. 7–24.',
      '.sheet',
    );
    await me.choose('Language', 'Deutsch');
    await me.see('Ferreira, A. und Ng, T.H. (2021)', '.sheet');
    // A style says the language it is written for, and prints in it by one press.
    await me.press('Written for English (UK): print in it');
    await me.see('Ferreira, A. and Ng, T.H. (2021)', '.sheet');
    await me.gone('Written for');
    await me.open('/references?style=modern-language-association&locale=fr-FR');
    await me.see('Ferreira, Ana, et Tsz Ho Ng. « Salt marsh recovery ».', '.sheet');
  });

  it('follows a record that is fixed', async () => {
    await me.open('/sources?q=dredging');
    await me.see('The edition holds “ed.” itself', '.row');
    await me.page.keyboard.press('Space');
    await me.page.waitForSelector('#change-them');
    await me.click('#change-them');
    await me.press('Fix findings', '[aria-label="Change the selected"][role=dialog]');
    await me.see('Findings fixed.');
    await me.open('/references');
    await me.see('Brandt, H. (2011). Dredging and the Law (3rd ed.). Foreshore Press.', '.sheet');
    await me.gone('itself', '.sheet');
  });

  it('prints a selection', async () => {
    await me.open('/sources?q=ferreira');
    await me.see('Marsh Letters', '.row');
    await me.page.keyboard.press('Space');
    await me.press('Print as a list');
    await me.see('1 entry');
    await me.see('Ferreira', '.sheet');
  });

  it('copies rich and plain text', async () => {
    await me.open('/references');
    await me.see('Brandt', '.sheet');
    await me.page.bringToFront();
    await me.press('Rich text');
    await me.see('on the clipboard, with its italics');
    const html = await me.page.evaluate(async () => {
      const [item] = await navigator.clipboard.read();
      return (await item!.getType('text/html')).text();
    });
    expect(html).toContain('text-indent');
    expect(html).toMatch(/<i>Marsh Letters<\/i>/);
    await me.press('Plain text');
    await me.see('as plain text');
    const plain = await me.page.evaluate(() => navigator.clipboard.readText());
    expect(plain).toContain('Marsh Letters, 3(1), 7–24.');
    expect(plain).not.toContain('<');
  });

  it('saves documents', async () => {
    await me.press('HTML');
    expect(await downloaded(me, 'references.html')).toContain(
      '<h1 style="font-size:1.2em;text-align:center">References</h1>',
    );
    await me.press('RTF');
    const rtf = await downloaded(me, 'references.rtf');
    expect(rtf).toMatch(/^\{\\rtf1/);
    expect(rtf).toContain('{\\i Marsh Letters}');
    expect(rtf).toContain('\\fi-720');
  });

  it('saves records that read back the same, and says first what a format cannot hold', async () => {
    const total = app.rows('SELECT id FROM source WHERE binned IS NULL').length;
    await me.press('CSL-JSON');
    await me.see('bibtex shelf: kept from bibtex', 'dialog');
    await me.press('Save it all the same');
    await me.gone('cannot hold everything');
    const json = readFormat('csl-json', await downloaded(me, 'references.json'));
    expect(json.entries).toHaveLength(total);
    await me.press('BibTeX');
    await me.see('references.bib cannot hold everything', 'dialog');
    await me.see('Chart of the Skerry', '.losses');
    await me.press('Save it all the same');
    await me.gone('cannot hold everything');
    const bib = readFormat('bibtex', await downloaded(me, 'references.bib'));
    expect(bib.skipped).toEqual([]);
    expect(bib.entries.find((e) => e.key === 'ferreira2021')?.record).toMatchObject({
      page: '7-24',
      issue: '1',
      'container-title': 'Marsh Letters',
    });
    expect(bib.entries.find((e) => e.key === 'brandt2011')?.record.retexa.kept).toEqual({
      bibtex: { shelf: '{A 4}'.slice(1, -1) },
    });
    await me.press('BibLaTeX');
    const biblatex = readFormat('biblatex', await downloaded(me, 'references-biblatex.bib'));
    expect(biblatex.entries).toHaveLength(total);
    await me.press('RIS');
    await me.see('references.ris cannot hold everything', 'dialog');
    await me.see('bibtex shelf: kept from bibtex', 'dialog');
    await me.press('Save it all the same');
    const ris = readFormat('ris', await downloaded(me, 'references.ris'));
    expect(ris.entries).toHaveLength(total);
  });
  it('knows its own export when it comes back, and asks only about what differs', async () => {
    const total = app.rows('SELECT id FROM source WHERE binned IS NULL').length;
    await me.open('/references?scope=library');
    await me.press('BibLaTeX');
    const bib = await downloaded(me, 'references-biblatex.bib');
    const changed = bib.replace(/(\{brandt2011,[^@]*?)\n\}/, '$1,\n  location = {Gullmere}\n}');
    expect(changed).not.toBe(bib);
    await importFile('back.bib', changed);
    await me.see(`${total} of ${total} entries are here already.`);
    await me.see(`The same work, all ${total}`);
    expect(await me.page.evaluate(() => document.body.innerText)).not.toContain('Perhaps the same');
    const said = (entry: string) =>
      me.page.$$eval(
        'li',
        (all, e) => all.find((l) => l.querySelector('fieldset')?.textContent?.includes(e))?.innerText,
        entry,
      );
    expect(await said('Ferreira')).toContain('The file says nothing else than you have.');
    expect(await said('Brandt')).toMatch(/Merging\s+adds\s+place\s+Gullmere/);
    await me.press('Leave it');
    await me.see('Left: nothing of the file was added.');
  });
});

describe('styles', () => {
  const STYLE = `<?xml version="1.0" encoding="utf-8"?>
<style xmlns="http://purl.org/net/xbiblio/csl" class="in-text" version="1.0" default-locale="en-GB">
  <info><title>House style of the mill</title><id>http://house.example/style</id><updated>2026-01-01T00:00:00+00:00</updated><category citation-format="author-date"/><category field="history"/></info>
  <macro name="spare"><text variable="DOI"/></macro><citation><layout prefix="(" suffix=")"><names variable="author"><name form="short"/></names></layout></citation>
  <bibliography><layout suffix=" ¶"><text variable="title" font-style="italic" suffix=" by "/><names variable="author"/></layout></bibliography>
</style>`;
  const bring = async (name: string, text: string) => {
    const path = join(folder, name);
    await writeFile(path, text);
    const input = (await me.page.$('input[aria-label="Style file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
  };
  const unfold = async () => {
    await me.page.waitForSelector('.entry');
    await me.page.click('[aria-label^="Citing style"]');
    await me.page.waitForSelector('.panel [role=option]');
  };
  it('are found by kind and field, shown on one’s own sources, and kept at hand', async () => {
    await me.open('/references');
    await unfold();
    await me.page.select('[aria-label="How it cites"]', 'numeric');
    await me.page.select('[aria-label="Field of study"]', 'botany');
    await until('only numeric ones', async () =>
      me.page.$$eval(
        '.panel [role=option] small',
        (all) => all.length > 0 && all.every((s) => s.textContent?.trim() === 'numbers'),
      ),
    );
    await me.page.select('[aria-label="How it cites"]', '');
    await me.page.select('[aria-label="Field of study"]', '');
    await until('each style on a source of one’s own, as it comes into view', async () =>
      me.page.$$eval(
        '.panel [role=option] .sample',
        (all) => all.length > 10 && all.slice(0, 4).every((s) => /Brandt|Ferreira/.test(s.textContent ?? '')),
      ),
    );
    await me.type('Find a style by name', 'ieee');
    await until('the preview', async () =>
      me.page.$eval('.panel .preview', (p) => /Brandt|Ferreira/.test(p.textContent ?? '')).catch(() => false),
    );
    await me.page.waitForSelector('[aria-label="Keep IEEE at hand"]');
    await me.page.click('[aria-label="Keep IEEE at hand"]');
    await me.type('Find a style by name', '');
    await until('IEEE first', async () =>
      (await me.page.$eval('.panel [role=option]', (o) => o.textContent ?? '').catch(() => '')).includes(
        'IEEE',
      ),
    );
  });
  it('that a person brings are held against the schema, and print', async () => {
    await me.open('/references');
    await unfold();
    await bring('wrong.csl', STYLE.replace('variable="title"', 'variable="titel"'));
    await me.see('wrong.csl is no style that can be used', '.toasts');
    await me.see('line 5: attribute variable with invalid value "titel"', '.toasts');
    await bring('house.csl', STYLE);
    await me.see('Salt marsh recovery by Ana Ferreira, Tsz Ho Ng ¶');
    await me.see('House style of the mill');
    await me.see('Written for English (UK): print in it');
    await me.press('Look into the style');
    await me.see('the macro “spare” is never called', 'aside');
    await me.see('line 4', 'aside');
    // By keys: from part to part of the first reference, the book of Brandt.
    const first = await me.page.waitForSelector(
      '[role=listbox][aria-label*="Brandt"][aria-label^="In the list"]',
    );
    await first!.focus();
    await me.page.keyboard.press('Home');
    await me.see('From the field title of', 'aside');
    await me.see('<text variable="title" font-style="italic" suffix=" by ">', 'aside');
    await me.see('line 5', 'aside');
    await me.page.keyboard.press('ArrowRight');
    await me.see('Words or marks of the style', 'aside');
    await me.page.keyboard.press('End');
    await me.see('the layout of the style', 'aside');
    // And by the pointer, in the citation.
    await me.page.click('.cited [data-part="1"]');
    await me.see('<names variable="author">', 'aside');
    await me.page.click('[aria-label="Citing style: no other"]');
    await me.type('Find a style by name', 'ieee');
    await me.page.waitForSelector('.panel [data-style=ieee]');
    await me.page.click('.panel [data-style=ieee]');
    await me.see('print the same words in IEEE');
    await until('what differs marked', async () =>
      me.page.$$eval('.other mark', (all) => all.some((m) => m.textContent?.includes('[1]'))),
    );
    await me.press('Swap them');
    await until('the other way round', async () =>
      me.page.$eval('[aria-label^="Citing style"]', (b) => b.textContent?.includes('IEEE') ?? false),
    );
    await me.press('Alone');
    await me.gone('print the same words');
    await me.page.goBack();
    await me.open('/references');
    await unfold();
    await me.page.select('[aria-label="Field of study"]', 'history');
    await until('found by its field', async () =>
      (await me.page.$$eval('.panel [role=option]', (all) => all.map((o) => o.textContent ?? ''))).some((t) =>
        t.includes('House style of the mill'),
      ),
    );
    await me.page.click('[aria-label="Take House style of the mill out of the catalogue"]');
    await me.see('is out of the catalogue', '.toasts');
    await me.open('/references');
  });
  it('that only point at another print as that one, or say which is wanted', async () => {
    const pointing = (parent: string) => `<?xml version="1.0" encoding="utf-8"?>
<style xmlns="http://purl.org/net/xbiblio/csl" version="1.0" default-locale="en-GB">
  <info><title>Letters of the Skerry</title><id>http://house.example/letters</id><link href="http://house.example/letters" rel="self"/><link href="http://styles.example/${parent}" rel="independent-parent"/><updated>2026-01-01T00:00:00+00:00</updated></info>
</style>`;
    await unfold();
    await bring('letters.csl', pointing('nowhere-at-all'));
    await me.see('which is not in the catalogue. Bring that one.', '.toasts');
    await bring('letters.csl', pointing('ieee'));
    await me.see('Letters of the Skerry prints as IEEE, which is in the catalogue.', '.toasts');
    await me.see('[1]', '.sheet');
    await me.open('/references');
  });
});

describe('what a list holds and how it is set', () => {
  const entries = () =>
    me.page.$$eval('.entry > .reference', (all) => all.map((e) => (e as HTMLElement).innerText));
  it('is exactly what a text cites, with the keys no source has named', async () => {
    await me.open('/references');
    await me.page.waitForSelector('.entry');
    await me.page.select('[aria-label="What the list holds"]', 'text');
    await me.type('The text', 'As \\textcite[7]{brandt2011} shows, [see @ferreira2021, p. 9; @nobody1900].');
    await me.press('Find what is cited');
    await me.see('2 sources are cited.', 'dialog');
    await me.see('This key has no source: nobody1900.', 'dialog');
    await me.press('Print what is cited');
    await until('two entries', async () => (await entries()).length === 2);
    expect((await entries()).join()).toMatch(/Brandt[\s\S]*Ferreira/);
  });
  it('is exactly what a word processor’s document cites', async () => {
    const path = join(folder, 'chapter.docx');
    const document = new Document({
      sections: [
        {
          children: [
            new Paragraph('The floor rose [@ferr'),
            new Paragraph('and fell [@brandt2011].'),
            // As long as a thesis, so that it is read in a worker as long ones are.
            ...Array.from(
              { length: 15_000 },
              (_, i) => new Paragraph(`${i * 7_919} ponds, ${i * 104_729} mills.`),
            ),
          ],
        },
      ],
    });
    await writeFile(path, await Packer.toBuffer(document));
    await me.open('/references?scope=library');
    await me.page.waitForSelector('.entry');
    await me.page.select('[aria-label="What the list holds"]', 'text');
    const input = (await me.page.waitForSelector(
      'input[aria-label="Text file"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
    await me.see('This key has no source: ferr.', 'dialog');
    await me.press('Print what is cited');
    await until('one entry', async () => (await entries()).length === 1);
    expect((await entries()).join()).toContain('Brandt');
  });
  it('has the heading it is given, in documents too', async () => {
    await me.open('/references?scope=library');
    await me.page.waitForSelector('.entry');
    await me.type('Heading of the list', 'Literaturverzeichnis');
    await me.page.keyboard.press('Enter');
    await me.press('Markdown');
    expect(await downloaded(me, 'references.md')).toMatch(/^# Literaturverzeichnis\n/);
  });
  it('is narrowed to a tag, and grouped by kind of source', async () => {
    await me.open('/references?scope=library');
    await me.page.waitForSelector('.entry');
    await me.page.select('[aria-label="Grouping"]', 'kind');
    await me.see('Books', '.sheet');
    await me.see('Articles', '.sheet');
    await me.press('Markdown');
    const text = await downloaded(me, 'references.md');
    expect(text).toMatch(/## Books\n\n[\s\S]*Dredging[\s\S]*## Articles\n\n[\s\S]*Salt marsh recovery/);
    await me.page.select('[aria-label="Grouping"]', '');
  });
});

describe('citekeys', () => {
  it('are made of chosen parts, shown beforehand, and the old ones still lead', async () => {
    await me.open('/references?scope=library');
    await me.page.waitForSelector('.entry');
    await me.press('How citekeys are made…');
    await me.page.waitForSelector('dialog .parts');
    await me.page.click('dialog [aria-label="Leave out first word of the title"]');
    await me.page.select('dialog select', '-');
    await me.see('ferreira-2021', 'dialog');
    await me.page.$$eval('dialog input[type=checkbox]', ([box]) => (box as HTMLInputElement).click());
    await me.press('Make keys so');
    await until('new keys', () => Promise.resolve(citekeys().includes('ferreira-2021')));
    expect(app.rows("SELECT alias FROM alias WHERE alias = 'ferreira2021'")).toHaveLength(1);
    await me.press('Undo', '.toasts');
    await until('old keys', () => Promise.resolve(citekeys().includes('ferreira2021')));
  });
});

describe('citing in the text', () => {
  const printed = () => me.page.$eval('dialog .printed', (p) => (p as HTMLElement).innerText.trim());
  const shows = (words: string) =>
    until(`“${words}”`, async () => (await printed().catch(() => '')) === words);
  it('joins works with their places, in the style’s order, and copies them', async () => {
    await me.open('/sources');
    await me.page.waitForSelector('[data-source]');
    const [one, two] = app.rows<{ id: string; title: string; citekey: string }>(
      "SELECT id, title, citekey FROM source WHERE binned IS NULL AND citekey IN ('ferreira2021', 'brandt2011') ORDER BY citekey DESC",
    );
    await me.open(`/sources/${one!.id}`);
    await me.press('Cite');
    await shows('(Ferreira & Ng, 2021)');
    await me.type('Place in Ferreira & Ng 2021', '7–9');
    await shows('(Ferreira & Ng, 2021, pp. 7–9)');
    await me.type('Before Ferreira & Ng 2021', 'see');
    await me.type('After Ferreira & Ng 2021', ', for the figures');
    await shows('(see Ferreira & Ng, 2021, pp. 7–9, for the figures)');
    await me.type('Another work', two!.title);
    await me.page.waitForSelector('dialog [aria-label="Found"] button');
    await me.page.click('dialog [aria-label="Found"] button');
    await until('both', async () => (await printed()).includes('; '));
  });
  it('leaves the author out, or names the author in the sentence', async () => {
    await me.page.$$eval('dialog .works li', (all) =>
      all.at(-1)!.querySelector<HTMLButtonElement>('[aria-label^="Take out"]')!.click(),
    );
    await me.type('Before Ferreira & Ng 2021', '');
    await me.type('After Ferreira & Ng 2021', '');
    await me.page.click('dialog .leave input');
    await shows('(2021, pp. 7–9)');
    await me.page.click('dialog .leave input');
    await me.page.$$eval('dialog label', (all) =>
      all.find((l) => l.textContent?.includes('the sentence names'))!.click(),
    );
    await shows('Ferreira & Ng (2021, pp. 7–9)');
    // The server is out of reach for a moment.
    await me.page.setOfflineMode(true);
    await me.type('Place in Ferreira & Ng 2021', '8');
    await me.see('The server does not answer.', 'dialog .printed');
    await me.page.setOfflineMode(false);
    await me.type('Place in Ferreira & Ng 2021', '7-9');
    await shows('Ferreira & Ng (2021, pp. 7–9)');
    await me.page
      .browserContext()
      .overridePermissions(app.url, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write']);
    await me.press('Copy plain', 'dialog');
    await me.see('The citation is on the clipboard.');
    expect(await me.page.evaluate(() => navigator.clipboard.readText())).toBe(
      'Ferreira & Ng (2021, pp. 7–9)',
    );
  });
});

describe('a saved document', () => {
  it('is a .docx with italics and hanging indent, and Markdown', async () => {
    await me.open('/references');
    await me.page.waitForSelector('.entry');
    await me.press('.docx');
    await me.see('references.docx is saved.');
    const docx = await downloaded(me, 'references.docx');
    expect(docx.startsWith('PK')).toBe(true);
    await me.press('Markdown');
    expect(await downloaded(me, 'references.md')).toContain('*Marsh Letters*');
  });
});

describe('works that would be cited alike', () => {
  it('are named with what tells each apart, and where one person may be spelled in two ways', async () => {
    await importFile(
      'alike.bib',
      `@book{oyelaran1, author = {Oyelaran, Bisi}, title = {Weirs}, publisher = {Foreshore Press}, year = {2004}}
@book{oyelaran2, author = {Oyelaran, Bisi}, title = {Weirs again}, publisher = {Foreshore Press}, year = {2004}}
@book{oyelaran3, author = {Oyelaran, B.}, title = {Fords}, publisher = {Foreshore Press}, year = {2006}}
`,
    );
    await me.see('3 sources added');
    await me.open('/references?scope=library&style=apa&locale=en-US');
    await me.press('Cited alike…');
    await me.see('2 would be cited as (Oyelaran, 2004)', 'dialog');
    await me.see('(Oyelaran, 2004b)', 'dialog');
    await me.see('puts the letter b behind the year, by its place in the list. disambiguate-add-year-suffix', 'dialog'); // prettier-ignore
    await me.page.keyboard.press('Escape');
    await me.gone('would be cited as');
    await me.open('/references?scope=library&style=chicago-author-date&locale=en-US');
    await me.press('Cited alike…');
    await me.see('(B. Oyelaran 2006)', 'dialog');
    await me.see('since there is also “Oyelaran, Bisi”', 'dialog');
    await me.press('spell the name alike');
    await me.page.waitForFunction(() => location.pathname === '/people');
    await me.see('Oyelaran, B.');
    await me.open('/references?scope=library&style=ieee&locale=en-US');
    await me.press('Cited alike…');
    await me.see('IEEE does nothing to tell works apart', 'dialog');
  });
});
