import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DOCUMENTS } from '../../stand-ins/documents';
import { beacons, HOSTILE } from '../../stand-ins/trouble';
import { startApp, until, visit, type App, type Person } from './app';
import { launch } from './chromium';

let app: App;
let me: Person;
let folder: string;
beforeAll(async () => {
  app = await startApp();
  folder = await mkdtemp(join(tmpdir(), 'retexa-files-'));
  // The stand-ins under their own names, for what starts on a page of theirs.
  const browser = await launch(`--host-resolver-rules=MAP *.example 127.0.0.1:${app.standIns.port}`);
  me = await visit(app, browser);
  await me.open('/');
});
afterAll(async () => {
  await me.page.browser().close();
  await app.stop();
  await rm(folder, { recursive: true, force: true });
});

interface Row {
  id: string;
  type: string;
  title: string;
  doi: string | null;
}
const sources = () =>
  app.rows<Row>(
    'SELECT id, type, title, doi FROM source WHERE binned IS NULL AND merged_into IS NULL ORDER BY added',
  );
const records = () =>
  app
    .rows<{ record: string }>('SELECT record FROM source ORDER BY added')
    .map((r) => JSON.parse(r.record) as Record<string, unknown>);
const putAway = () => me.press('Put away', '.tray header');

/** Pastes into the capture field as the clipboard would. */
const paste = (text: string) =>
  me.page.evaluate((t) => {
    const data = new DataTransfer();
    data.setData('text/plain', t);
    document
      .querySelector('[aria-label="What to capture"]')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);

async function chooseFile(...names: string[]) {
  await me.press('Where captures go');
  const input = (await me.page.waitForSelector(
    'input[type="file"][aria-label="Files to capture"]',
  )) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(...names.map((n) => join(folder, n)));
}

describe('many identifiers, one a line', () => {
  it('are a capture each: DOI, ISBN, arXiv, PubMed, Handle, ISSN with details', async () => {
    await paste(
      '10.5555/shr.9.33\n978-1-86197-271-2\narXiv:2403.01234\nhdl:5555/4455\nISSN 2770-114X vol. 12 eel grass\n',
    );
    await until('five sources', async () => sources().length === 5);
    expect(
      sources()
        .map((s) => s.title)
        .sort(),
    ).toEqual([
      'Eel grass and the shape of sluices',
      'Gates of the Long Sound: tide mills and their keepers',
      'Tide mills of the northern sounds',
      'Tides as clocks',
      'Turbines in old wheelhouses',
    ]);
    const book = records().find((r) => r.type === 'book')!;
    expect(book).toMatchObject({
      publisher: 'Strand University Press',
      edition: '3',
      'collection-number': '4',
    });
    await putAway();
    await me.capture('see PMID: 30611411 for the cores');
    await me.see('Byrne & Menon 2019', '.tray .got');
    await putAway();
  });
});

describe('a list of works', () => {
  it('is offered to tick from, those here marked; kept as one job with progress; one undo takes all back', async () => {
    await me.capture('https://estuaryshore.example/issues/12/2');
    await me.see('A list of 4 works. Nothing is saved yet.', '.tray');
    const before = sources().length;
    await me.press('Choose which to keep', '.tray');
    await me.see('2 of 4 ticked', 'dialog');
    await me.see('you have this', 'dialog');
    await me.press('Capture 2', 'dialog');
    await me.see('2 captured from a list', '.tray');
    expect(sources().length).toBe(before + 2);
    expect(records().find((r) => String(r.title).startsWith('Counting tides'))).toMatchObject({
      page: '131-139',
      type: 'article-journal',
    });
    await me.press('Undo', '.tray');
    await me.see('2 captures are in the bin');
    expect(sources().length).toBe(before);
    await me.press('Undo', '.toasts');
    await until('both back', async () => sources().length === before + 2);
  });
  it('nothing ticked keeps nothing, and it can be put away', async () => {
    await me.capture('https://openindex.example/lists/mills');
    await me.press('Choose which to keep', '.tray');
    await me.press('Tick none', 'dialog');
    await me.see('0 of 3 ticked', 'dialog');
    expect(
      await me.page.$$eval(
        'dialog button',
        (all) => all.find((b) => b.textContent?.startsWith('Capture'))!.disabled,
      ),
    ).toBe(true);
    await me.press('Not now', 'dialog');
    await me.gone('Works on this page', 'dialog');
    await me.press('Put away', '.tray li');
    await me.gone('A list of 3 works');
    expect(app.rows('SELECT * FROM hold')).toEqual([]);
  });
});

describe('what is here already', () => {
  it('is said before anything is saved; the page can be added as another copy', async () => {
    const before = sources().length;
    const [known] = app.rows<{ id: string }>("SELECT id FROM source WHERE doi = '10.5555/es.12.101'");
    const copies = () => app.rows<{ kind: string }>('SELECT kind FROM copy WHERE source_id = ?', known!.id);
    await me.capture('https://estuaryshore.example/articles/12-2-101');
    await me.see('You have this already: Byrne & Menon 2019 (same DOI', '.tray');
    expect(sources().length).toBe(before);
    const kept = copies().length;
    await me.press('Add as another copy', '.tray');
    await me.see('Added to the source you have', '.tray');
    expect(sources().length).toBe(before);
    expect(copies().length).toBeGreaterThan(kept);
    // Undo takes back only what was just done: the copy goes, the source that was there before stays as it was.
    await me.press('Undo', '.tray');
    await me.see('the source is as it was', '.toasts');
    expect(copies().length).toBe(kept);
    expect(sources().length).toBe(before);
  });
});

describe('a DOI of another work on the page', () => {
  it('is found out and left out, and the source says so', async () => {
    await me.capture('https://smallhydro.example/7/1/20');
    await me.see('belongs to another work, “Salt marsh recovery behind breached dams”', '.tray');
    expect(records().at(-1)).toMatchObject({ title: 'Penstocks without pain', volume: '7' });
    expect(records().at(-1)!.DOI).toBeUndefined();
    await putAway();
  });
});

describe('a PDF', () => {
  it('is taken as a file, its record from the registry of its DOI, shown with printed page numbers', async () => {
    await me.capture('10.5555/es.12.117');
    await me.see('You have this already', '.tray');
    await me.press('Put away', '.tray li');
    await writeFile(
      join(folder, 'thesis.pdf'),
      await DOCUMENTS['repository.northsound.example/bitstream/1/7000/thesis.pdf']!.bytes(),
    );
    await chooseFile('thesis.pdf');
    await me.see('Byrne 2018', '.tray .got');
    const [thesis] = app.rows<Row>("SELECT id, type, title FROM source WHERE title = 'Mud and memory'");
    expect(thesis).toMatchObject({ type: 'thesis' });
    const [copy] = app.rows<{ id: string; labels: string; text: string }>(
      'SELECT id, labels, text FROM copy WHERE source_id = ?',
      thesis!.id,
    );
    expect(JSON.parse(copy!.labels)).toEqual(['i', 'ii', '1', '2', '3', '4']);
    await putAway();
    await me.open(`/copies/${copy!.id}`);
    await me.page.waitForFunction(() => {
      const doc = document.querySelector('iframe')?.contentDocument;
      const picture = doc?.querySelector<HTMLImageElement>('.leaf img');
      return picture?.complete && picture.naturalWidth > 0 && doc!.querySelectorAll('.leaf').length === 6;
    });
  });
  it('is attached to a source there is, and no second time', async () => {
    const [source] = app.rows<{ id: string }>("SELECT id FROM source WHERE title = 'Penstocks without pain'");
    const copies = () =>
      app.rows<{ kind: string }>('SELECT kind FROM copy WHERE source_id = ? ORDER BY captured', source!.id);
    const before = copies().length;
    const thesis = app.rows<{ id: string }>(
      "SELECT id FROM copy WHERE kind = 'pdf' ORDER BY captured DESC",
    )[0]!;
    await me.open(`/sources/${source!.id}`);
    const attach = async () => {
      const input = await me.page.waitForSelector('input[aria-label="A document of this source"]');
      await (input as ElementHandle<HTMLInputElement>).uploadFile(join(folder, 'thesis.pdf'));
    };
    await attach();
    await me.see('Added to the source you have as another copy', '.tray');
    await me.see('PDF, captured', 'aside');
    expect(copies()).toHaveLength(before + 1);
    await attach();
    await me.see('This very document is kept with the source already', '.tray');
    expect(copies()).toHaveLength(before + 1);
    await putAway();
    await me.open(`/copies/${thesis.id}`);
  });
  it('a sentence on it is kept with its printed page, and found again', async () => {
    const words = await me.page.$eval('iframe', (f) => {
      const leaf = (f as HTMLIFrameElement).contentDocument!.querySelector('.leaf[data-page="2"]')!;
      return leaf.querySelector('.line')!.textContent!.trim().slice(0, 40);
    });
    await me.page.$eval('iframe', (f) => {
      const doc = (f as HTMLIFrameElement).contentDocument!;
      const line = doc.querySelector('.leaf[data-page="2"] .line')!.firstChild!;
      const range = doc.createRange();
      range.setStart(line, 0);
      range.setEnd(line, 40);
      const selection = doc.getSelection()!;
      selection.removeAllRanges();
      selection.addRange(range);
      doc.dispatchEvent(new MouseEvent('mouseup', { bubbles: true }));
    });
    await me.see('New passage, p. 2');
    await me.press('Keep passage');
    await until('the passage', async () => app.rows('SELECT 1 FROM passage').length === 1);
    expect(
      app.rows<{ locator: string; exact: string }>(
        'SELECT locator, exact FROM passage ORDER BY added DESC',
      )[0],
    ).toMatchObject({
      locator: '{"label":"page","value":"2"}',
      exact: words,
    });
    await me.page.reload();
    await me.see('p. 2', '.card');
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.querySelector('.leaf[data-page="2"] mark'),
    );
  });
  it('scanned, its text is recognised, and that is said', async () => {
    await me.open('/');
    await me.capture('https://skerryarchive.example/scans/lease-1641.pdf');
    await until(
      'the scan',
      async () => sources().some((s) => s.title === 'A lease of the tide mill'),
      60_000,
    );
    await me.see('Text recognised from the picture', '.tray');
    const [copy] = app.rows<{ text: string }>(
      "SELECT text FROM copy WHERE kind = 'pdf' ORDER BY captured DESC",
    );
    expect(copy!.text).toContain('scour the sluice at every spring tide');
    await putAway();
  });
  it('that is damaged says so, and nothing is half-saved', async () => {
    await writeFile(join(folder, 'cut.pdf'), '%PDF-1.7\n1 0 obj');
    const before = sources().length;
    await chooseFile('cut.pdf');
    await me.see('The PDF is damaged', '.tray');
    expect(sources().length).toBe(before);
    await putAway();
  });
});

describe('files', () => {
  it('a photo of a page becomes a picture copy with its text; a packed file is told what to do', async () => {
    await writeFile(
      join(folder, 'lease photo.png'),
      await DOCUMENTS['skerryarchive.example/photos/lease.png']!.bytes(),
    );
    await writeFile(join(folder, 'all.zip'), Buffer.from('504b0304', 'hex'));
    await chooseFile('lease photo.png', 'all.zip');
    await me.see('all.zip is a packed file. Unpack it');
    await until(
      'the photo',
      async () => app.rows("SELECT 1 FROM copy WHERE kind = 'image'").length === 1,
      60_000,
    );
    await putAway();
  });
  it('a saved page that is hostile is shown with nothing run and nobody called', async () => {
    await writeFile(
      join(folder, 'friendly.html'),
      `<!-- saved from url=(0029)https://hostile.example/saved -->\n${HOSTILE}`,
    );
    const calls = beacons.length;
    await chooseFile('friendly.html');
    await me.see('Friendly page', '.tray');
    expect(records().at(-1)).toMatchObject({ title: 'Friendly page', URL: 'https://hostile.example/saved' });
    const [copy] = app.rows<{ id: string }>('SELECT id FROM copy ORDER BY captured DESC');
    await me.open(`/intake?at=${sources().at(-1)!.id}`);
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.body?.textContent?.includes('harmless'),
    );
    await me.open(`/copies/${copy!.id}`);
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.body?.textContent?.includes('harmless'),
    );
    expect(await me.page.evaluate(() => 'pwned' in window)).toBe(false);
    expect(beacons.length).toBe(calls);
    await putAway();
  });
});

describe('where a capture goes', () => {
  it('project, a new section, tags, a line of note: chosen while capturing', async () => {
    await me.open('/');
    await me.page.evaluate(() =>
      fetch('/api/projects', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name: 'Ponds paper', style: 'apa', locale: 'en-US' }),
      }),
    );
    await me.press('Where captures go');
    await me.choose('Project', 'Ponds paper');
    await me.choose('Section', 'New section…');
    await me.type('Section', 'Silt');
    await me.page.keyboard.press('Enter');
    await me.page.waitForFunction(() =>
      [...document.querySelectorAll('.panel option')].some((o) => o.textContent?.trim() === 'Silt'),
    );
    await me.type('Add a tag', 'reports');
    await me.page.keyboard.press('Enter');
    await me.type('Note', 'for the second chapter');
    await me.press('Done', '.panel');
    await me.capture('https://northsound.example/reports/ponds-2020');
    await me.see('Northsound Council 2020', '.tray .got');
    const { id } = sources().at(-1)!;
    expect(app.rows('SELECT tag FROM source_tag WHERE source_id = ?', id)).toEqual([{ tag: 'reports' }]);
    expect(
      app.rows('SELECT s.name FROM placement JOIN section s ON s.id = section_id WHERE source_id = ?', id),
    ).toEqual([{ name: 'Silt' }]);
    expect(app.rows('SELECT body FROM note WHERE source_id = ?', id)).toEqual([
      { body: 'for the second chapter' },
    ]);
    await me.open(`/sources/${id}`);
    await me.see('for the second chapter');
    await me.see('Section: Silt');
    await putAway();
  });
  it('offers what the library holds while a field is typed in', async () => {
    await me.page.focus('#f-publisher');
    await me.page.$eval('#f-publisher', (i) => (i as HTMLInputElement).select());
    await me.page.keyboard.type('Strand');
    await me.page.waitForFunction(() =>
      [...document.querySelectorAll('datalist option')].some(
        (o) => (o as HTMLOptionElement).value === 'Strand University Press',
      ),
    );
  });
});

describe('leads', () => {
  it('a reference typed in the capture field becomes a lead; looked up, captured, it is ticked off', async () => {
    await me.open('/');
    await me.capture(
      'Ferreira, A., Ng, T. H. (2021). Salt marsh recovery behind breached dams. Marsh Letters, 3, 7–24.',
    );
    await me.see('This looks like a reference', '.hint');
    await me.press('Keep as a lead', '.hint');
    await me.see('Kept as a lead.');
    await me.open('/leads');
    await me.see('Ferreira, A.; Ng, T. H. · 2021 · Marsh Letters');
    await me.press('Look it up');
    await me.see('Salt marsh recovery behind breached dams', '.offers');
    await me.press('Capture this', '.offers');
    await me.see('Found: Ferreira, Ng & Ó Súilleabháin 2021', '.leads');
    expect(app.rows('SELECT ticked IS NOT NULL AS t FROM lead')).toEqual([{ t: 1 }]);
  });
  it('a pasted list is cut into its references, the ones here marked; one goes on by hand', async () => {
    await me.type('Works met while reading: paste a reference, or a whole list of them', '');
    const paste = async () => {
      await me.page.focus('#new-leads');
      for (const line of [
        'Sato, Y. (2020). Turbines in old wheelhouses. Small Hydropower Review, 9(2), 33–51.',
        'Barrow, E. M. (1998). Grain and tide: A history. Strand University Press.',
      ]) {
        await me.page.keyboard.type(line);
        await me.page.keyboard.press('Enter');
      }
    };
    await paste();
    // Called away before it is kept: it is there again.
    await me.open('/sources');
    await me.open('/leads');
    await me.press('Keep 2 as leads');
    await me.see('Surely one you have: Sato 2020', '.leads');
    expect(await me.page.$eval('#new-leads', (field) => (field as HTMLTextAreaElement).value)).toBe('');
    await me.press('Undo', '.toasts');
    await me.gone('Surely one you have: Sato 2020');
    await paste();
    await me.press('Keep 2 as leads');
    await me.see('Surely one you have: Sato 2020', '.leads');
    await me.page.$$eval('[data-lead]', (all) => {
      const row = all.find((l) => l.textContent?.includes('Grain and tide'))!;
      [...row.querySelectorAll('button')].find((b) => b.textContent?.trim() === 'By hand')!.click();
    });
    await me.see('As it prints');
    expect(records().at(-1)).toMatchObject({
      type: 'book',
      title: 'Grain and tide: A history',
      publisher: 'Strand University Press',
    });
  });
  it('come of the list of references a kept article has itself, those that are here left out', async () => {
    const met = () => app.rows<{ text: string }>("SELECT text FROM lead WHERE binned IS NULL AND met_in IS NOT NULL"); // prettier-ignore
    await me.open('/');
    await me.capture('https://estuaryshore.example/articles/12-2-101');
    const [copy] = await until('the copy', async () => {
      const found = app.rows<{ id: string; source_id: string }>("SELECT id, source_id FROM copy WHERE text LIKE '%References%' ORDER BY id DESC"); // prettier-ignore
      return found.length > 0 && found;
    });
    await me.open(`/copies/${copy!.id}`);
    await me.press('Passages out and in');
    await me.press('Leads from its list of references…');
    await me.see('2 references under “References”', 'dialog[open]');
    await me.see('Sato 2020', 'dialog[open]');
    await me.see('Keep 0 as leads', 'dialog[open]');
    await me.press('All · 2', 'dialog[open]');
    await me.press('Keep 2 as leads', 'dialog[open]');
    await me.see('2 kept as leads.', '.toasts');
    expect(
      met()
        .map((l) => l.text.slice(0, 8))
        .sort(),
    ).toEqual(['Ferreira', 'Sato, Y.']);
    await me.press('Undo', '.toasts');
    await until('none to be left', async () => met().length === 0);
    // From the source, too, whichever of its documents has the list.
    await me.open(`/sources/${copy!.source_id}`);
    await me.press('From its list of references…');
    await me.see('2 references under “References”', 'dialog[open]');
  });
});

describe('a thought', () => {
  it('typed into the capture field is a note in a moment', async () => {
    await me.open('/');
    await me.capture('ask Tessa whether the 1904 survey is in the archive');
    await me.press('Keep as a thought', '.hint');
    await me.see('The thought is kept under Notes.');
    await me.open('/notes');
    await me.see('ask Tessa whether the 1904 survey');
  });
  it('has a look, and names sources and other thoughts by @, by keys alone', async () => {
    const [source] = app.rows<{ id: string; title: string }>(
      "SELECT id, json_extract(record, '$.title') AS title FROM source WHERE binned IS NULL AND title <> '' ORDER BY id LIMIT 1",
    );
    await me.open('/notes');
    await me.type('A thought', 'Compare ');
    await me.page.keyboard.type(`@${source!.title.split(' ').slice(0, 2).join(' ')}`);
    await me.page.waitForSelector('.found [role="option"]');
    await me.page.keyboard.press('Enter');
    await me.page.waitForSelector('.tiptap .named.source');
    await me.page.keyboard.type('with @Tessa');
    await me.see('ask Tessa whether the 1904 survey', '.found');
    // From the first to the last, where the notes are.
    await me.page.keyboard.press('ArrowUp');
    await until('the thought to be pointed at', () =>
      me.page.$eval('.found .current', (e) => e.textContent!.includes('Tessa')),
    );
    await me.page.keyboard.press('Enter');
    await me.page.waitForSelector('.tiptap .named.note');
    await me.page.keyboard.down('Control');
    await me.page.keyboard.press('b');
    await me.page.keyboard.up('Control');
    await me.page.keyboard.type('today');
    await me.choose('Colour of the note', 'moss');
    await me.press('Keep');
    await me.see('Kept.');
    await me.page.waitForSelector(`.list .named.source[href="/sources/${source!.id}"]`);
    await me.see('today', '.list b');
    // The other thought tells where it is named, and the source has both.
    await me.see('Named in Compare', '.list');
    expect(
      app.rows('SELECT tint, body LIKE ? AS hidden FROM note WHERE content IS NOT NULL', '%1904%'),
    ).toEqual([{ tint: 'moss', hidden: 0 }]);
    await me.open(`/sources/${source!.id}`);
    await me.see('Compare', '.note-text');
    await me.press('Edit', 'article[data-note]');
    await me.page.waitForSelector('.tiptap .named.note');
    await me.page.waitForFunction(() => document.activeElement?.closest('article[data-note] .tiptap'));
    await me.page.keyboard.type(' and tomorrow');
    await me.press('Save', 'article[data-note]');
    await me.see('and tomorrow', '.note-text');
  });
  it('spoken is kept as a recording that plays', async () => {
    await me.open('/notes');
    await me.press('Speak it');
    await me.see('Recording, 1 s');
    await me.press('Stop');
    // The stand-in writes every recording out with the same words; what hesitates in them is left out.
    await me.see('correct it before it is kept');
    const written = () =>
      me.page.$eval('[role="textbox"][aria-label="A thought"]', (field) => (field as HTMLElement).innerText);
    expect(await written()).toBe('Ask Tessa whether the gauge, was read at neaps. And who paid for it.');
    await me.type('A thought', 'Ask Tessa whether the gauge was read at neaps. And who paid for it?');
    await me.press('Keep with the sound');
    await me.see('The recording is kept.');
    await me.see('gauge was read at neaps');
    await me.page.waitForSelector('audio');
    const played = await me.page.$eval('audio', async (a) => {
      const answer = await fetch(a.src, { headers: { range: 'bytes=0-3' } });
      return [answer.status, [...new Uint8Array(await answer.arrayBuffer())]];
    });
    expect(played).toEqual([206, [0x1a, 0x45, 0xdf, 0xa3]]);
  });
  it('nothing typed is lost when the server goes away', async () => {
    await me.open('/notes');
    await app.kill();
    await me.type('A thought', 'do not lose this one');
    await me.press('Keep');
    await me.see('It waits in this browser');
    await me.capture('10.5555/dh.77');
    await me.see('2 captures of yours wait in this browser until the server is reached');
    await app.start();
    await me.see('2 captures that waited are sent.');
    await me.see('do not lose this one', '.list');
  });
});

describe('a capture preset', () => {
  it('is made with a live example on one’s own sources, and opened by its address', async () => {
    await me.open('/ways-in');
    await me.press('New preset');
    await me.type('Name', 'News for the thesis');
    await me.choose('Kind of source', 'Newspaper article');
    await me.page.waitForSelector(
      '[aria-label="Place of publication where the page says nothing"], [aria-label="Place where the page says nothing"]',
    );
    await me.page.$eval('.fields', (f) => {
      const input = [...f.querySelectorAll<HTMLInputElement>('input[aria-label]')].find((i) =>
        /^Place/.test(i.getAttribute('aria-label')!),
      )!;
      input.value = 'Northsound';
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await me.type('Add a tag', 'news');
    await me.page.keyboard.press('Enter');
    await me.choose('Kind of source', 'Journal article');
    await me.see('On one of your own');
    await me.see('Filled without asking', '.example');
    await me.choose('Kind of source', 'Newspaper article');
    await me.press('Make the preset');
    await me.see('News for the thesis', '.presets');
    const href = await me.page.$eval('.presets a', (a) => a.getAttribute('href'));
    await me.open(
      `${href}&url=${encodeURIComponent('https://news.portledger.example/2023/03/14/last-miller.html')}`,
    );
    await me.see('News for the thesis', 'header');
    await me.press('Capture');
    await me.see('Raman & Oakes 2023', '.got');
    expect(records().at(-1)).toMatchObject({ 'publisher-place': 'Northsound', retexa: { tags: ['news'] } });
    const asked = await me.page.$$eval('.outcome .row label', (all) => all.map((l) => l.textContent?.trim()));
    expect(asked).toEqual(['Kind of source', 'Title', 'Authors', 'Date']);
  });
});

describe('the capture window', () => {
  it('keeps what was selected as a located quotation', async () => {
    await me.open(
      `/capture?url=${encodeURIComponent('https://longsoundwalks.example/posts/backwards')}&selection=${encodeURIComponent('the wheel turned the other way')}`,
    );
    await me.press('Capture');
    await me.see('Osei 2022', '.got');
    await me.see('The selection is kept as a quotation.');
    expect(
      app.rows("SELECT exact, locator FROM passage WHERE anchor = 'found' ORDER BY added DESC")[0],
    ).toEqual({
      exact: 'the wheel turned the other way',
      locator: '{"label":"paragraph","value":"2"}',
    });
    await me.press('Undo');
    await me.see('The capture is in the bin.');
  });
  it('stands alone: a book in the hand by its ISBN, a thought', async () => {
    await me.open('/capture');
    await me.press('In the hand');
    await me.type('ISBN, if it has one', '0-306-40615-2');
    await me.press('Look it up');
    await me.see('Osei & Lindqvist 2015', '.got');
    await me.press('Another');
    await me.press('A thought');
    await me.type('A thought', 'on the train: tides as toll clocks');
    await me.press('Keep');
    await until(
      'the thought',
      async () => app.rows("SELECT 1 FROM note WHERE body LIKE 'on the train%'").length === 1,
    );
  });
  it('takes what a phone shares: a page, and a file', async () => {
    const shared = await me.page.evaluate(async () => {
      const form = new FormData();
      form.set('title', 'Ponds');
      form.set('text', 'Look at this https://harbourcouncil.example/guides/dressing');
      return (await fetch('/capture/shared', { method: 'POST', body: form })).url;
    });
    await me.open(new URL(shared).pathname + new URL(shared).search);
    expect(await me.page.$eval('#c-what', (i) => (i as HTMLInputElement).value)).toBe(
      'https://harbourcouncil.example/guides/dressing',
    );
    const manifest = (await (await fetch(`${app.url}/manifest.webmanifest`)).json()) as {
      share_target: { action: string };
    };
    expect(manifest.share_target.action).toBe('/capture/shared');
  });
});

describe('the bookmarklet', () => {
  it('hands over a page behind a sign-in, as it is seen, with what is selected on it', async () => {
    await me.open('/');
    await me.capture('https://memberslibrary.example/reading/silt');
    await me.see('only to people who are signed in', '.tray');
    await putAway();
    await me.open('/ways-in');
    const code = await me.page.$$eval('a', (all) =>
      all.find((a) => a.textContent?.trim() === 'Keep in Retexa')!.getAttribute('href')!,
    );
    const library = await me.page.browser().newPage();
    await library.setCookie({ name: 'member', value: '1', domain: 'memberslibrary.example', path: '/' });
    await library.goto('http://memberslibrary.example/reading/silt');
    const words = 'Behind a closed gate the water forgets the sea within a season.';
    await library.evaluate((w) => {
      const p = [...document.querySelectorAll('p')].find((x) => x.textContent === w)!;
      getSelection()!.selectAllChildren(p);
    }, words);
    const opened = new Promise<import('puppeteer-core').Page>((resolve) =>
      library.once('popup', (p) => resolve(p!)),
    );
    await library.evaluate((c) => {
      (0, eval)(decodeURIComponent(c.replace('javascript:', '')));
    }, code);
    const popup = await opened;
    await popup.waitForFunction(() => document.body.innerText.includes('hands this page over as you see it'));
    const before = sources().length;
    expect(before).toBe(sources().length);
    await popup.evaluate(() =>
      [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === 'Capture')!.click(),
    );
    await popup.waitForFunction(() => document.querySelector('.got')?.textContent?.includes('Raman 2020'));
    expect(sources().length).toBe(before + 1);
    expect(app.rows('SELECT exact, anchor FROM passage ORDER BY added DESC')[0]).toEqual({
      exact: words,
      anchor: 'found',
    });
    await popup.close();
    // Used again on a page that is here, what is selected is kept at once; the same words are not kept twice.
    const passages = () =>
      app.rows<{ exact: string; kind: string }>(
        'SELECT exact, kind FROM passage WHERE binned IS NULL ORDER BY added',
      );
    for (const [nth, said] of [
      [0, 'Kept before'],
      [1, 'Kept:'],
    ] as const) {
      const there = passages().length;
      const again = new Promise<import('puppeteer-core').Page>((resolve) =>
        library.once('popup', (p) => resolve(p!)),
      );
      await library.evaluate(
        (w, from, c) => {
          const p = [...document.querySelectorAll('p')].find((x) => x.textContent === w)!;
          const other = [...document.querySelectorAll('p')].find(
            (x) => x !== p && x.textContent!.length > 30,
          );
          getSelection()!.selectAllChildren(from ? other! : p);
          (0, eval)(decodeURIComponent(c.replace('javascript:', '')));
        },
        words,
        nth,
        code,
      );
      const window = await again;
      await window.waitForFunction(
        (w) => document.querySelector('.here')?.textContent?.includes(w),
        {},
        said,
      );
      expect(passages()).toHaveLength(there + nth);
      await window.close();
    }
    expect(passages().at(-1)!.kind).toBe('quotation');
    await library.close();
  });
});

describe('manners', () => {
  it('a busy server is asked again, one request at a time', async () => {
    await me.open('/');
    await me.capture('https://busy.example/');
    await me.see('Quiet at last', '.tray');
    expect(app.standIns.asked.get('busy.example')).toBe(3);
  });
  it('sixty pages in a burst: nothing is lost, and the page goes on answering', async () => {
    await putAway();
    const before = sources().length;
    await paste(Array.from({ length: 60 }, (_, i) => `https://burst.example/pages/${i}`).join('\n'));
    await me.press('Leads', 'nav.path');
    await me.see('Leads', 'h1');
    await until('sixty more', async () => sources().length === before + 60, 80_000);
  }, 120_000);
});
