/** Writing: a page with citations that print as they stand, kept by parts, in two windows, checked and saved. */
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { downloadedBytes, startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
let project: Record<string, string>;
const post = (path: string, body: unknown) =>
  me.page.evaluate(
    async (to, what) => {
      const response = await fetch(to, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(what) });
      if (!response.ok) throw new Error(await response.text());
      return (await response.json()) as Record<string, string>;
    },
    path,
    body,
  ); // prettier-ignore

const BIB = `@book{pell, title={Ledgers of the shore}, author={Pell, Margaret}, publisher={Mole Press}, year={2001}}
@book{ng, title={Gates that close themselves}, author={Ng, Tsz Ho}, publisher={Mole Press}, year={2004}}
@book{ngtwo, title={Gates and their makers}, author={Ng, Tsz Ho}, publisher={Mole Press}, year={2004}}
@article{fitch, title={Why the ponds filled}, author={Fitch, Ruth}, journal={Marsh Letters}, year={2010}, volume={3}, pages={1--9}}
@book{yew, title={Only listed}, author={Yew, Al}, publisher={Mole Press}, year={1991}}`;

beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.open('/sources');
  project = await post('/api/projects', { name: 'Thesis', style: 'apa', locale: 'en-US' });
  await me.open('/sources');
  await me.importPasted(BIB);
  await me.see('5 sources added');
  const { items } = (await me.page.evaluate(async () => (await fetch('/api/sources?')).json())) as {
    items: { id: string; label: string }[];
  };
  const pell = items.find((i) => i.label.startsWith('Pell'))!.id;
  const section = await post('/api/sections', { projectId: project.id, name: 'How a tide mill works' });
  const { id } = await post('/api/passages', { kind: 'quotation', tint: 'claim', copyId: null, selectors: null, visibility: 'library', ownWords: '', tags: [], sourceId: pell, exact: 'Every pond was let to a miller.', gist: 'Ponds were let', locator: { label: 'page', value: '12' } }); // prettier-ignore
  await post(`/api/projects/${project.id}/outline`, {
    changes: [
      {
        act: 'put',
        sectionId: section.id,
        before: null,
        items: [
          { ref: 'x', kind: 'sentence', words: 'Mills ground with the tide.' },
          { ref: id, kind: 'passage' },
        ],
      },
    ],
  });
  await openDraft();
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const openDraft = async () => {
  await me.open('/draft');
  await me.page.waitForSelector('[aria-label="Draft"][contenteditable="true"]:focus');
};
const press = async (...keys: string[]) => {
  for (const key of keys) {
    const parts = key.split('+');
    for (const held of parts.slice(0, -1)) await me.page.keyboard.down(held as 'Alt');
    await me.page.keyboard.press(parts.at(-1) as 'Enter');
    for (const held of parts.slice(0, -1).reverse()) await me.page.keyboard.up(held as 'Alt');
  }
};
const type = (words: string) => me.page.keyboard.type(words);
const inText = () => me.page.waitForSelector('[aria-label="Draft"]:focus');
const toEnd = () => press('Control+End');
const textOf = (person = me) =>
  person.page.$eval('[aria-label="Draft"]', (e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
const textIs = (words: string, person = me) =>
  until(`the text “${words}”`, async () => (await textOf(person)).includes(words)).catch(
    async (e: unknown) => {
      throw new Error(`${String(e)}; it is ${await textOf(person)}`);
    },
  );
const listIs = (expected: string[]) =>
  until(`the list ${expected.join(' | ')}`, async () => {
    const there = await me.page.$$eval('[aria-label="References"] .entry p', (all) => all.map((e) => e.textContent!.trim()));
    return there.length === expected.length && expected.every((e, i) => there[i]!.startsWith(e));
  }); // prettier-ignore
const kept = (person = me) =>
  until('all is kept', () => person.page.$('.foot[data-state="kept"]').then((found) => Boolean(found)));
/** Cites by keys alone: words of each work, its place. */
async function cite(...works: [words: string, place?: string][]) {
  await press('Alt+i');
  await me.page.waitForSelector('[role="combobox"]:focus');
  for (const [i, [words, place]] of works.entries()) {
    if (i) await press(';');
    await type(words);
    const wanted = words.replace(/^(?:see )?-?/, '').split(' ')[0]!;
    await until(`a work that fits ${words}`, () =>
      me.page.evaluate(
        (w) => document.querySelector('#cite-found [aria-selected="true"]')?.textContent?.toLowerCase().includes(w),
        wanted.toLowerCase(),
      ),
    ); // prettier-ignore
    await press('Enter');
    if (place) {
      await type(place);
      await press('Enter');
    }
  }
  await press('Enter');
  await me.page.waitForSelector('.cite-field', { hidden: true });
  await inText();
}

describe('a draft', () => {
  it('begins with the headings and sentences of the outline', async () => {
    await me.see('The outline has 1 section');
    await me.press('Its headings and your sentences');
    await textIs('How a tide mill works Mills ground with the tide.');
    await inText();
    await kept();
  });

  it('is written with citations by keys alone, which print in the style at once', async () => {
    await type(' The gates shut by themselves');
    await cite(['see ng close', '7-9'], ['fitch']);
    await textIs('by themselves (Fitch, 2010; see Ng, 2004, pp. 7–9)');
    await type(', as ');
    // The second work of a name and year makes both of them lettered.
    await cite(['ng makers']);
    await textIs('see Ng, 2004b, pp. 7–9), as (Ng, 2004a)');
    await listIs(['Fitch, R. (2010)', 'Ng, T. H. (2004a)', 'Ng, T. H. (2004b)']);
    await kept();
  }, 300_000);

  it('tells what is not in the library, and leaves the text as it was', async () => {
    const before = await textOf();
    await press('Alt+i');
    await me.page.waitForSelector('[role="combobox"]:focus');
    await type('nobody wrote this');
    await me.see('Nothing in the library fits “nobody wrote this”');
    await press('Escape');
    await inText();
    expect(await textOf()).toBe(before);
  });

  it('takes a quotation from the outline with its citation and place, by a key', async () => {
    await type('. ');
    await press('Alt+o');
    await me.page.focus('.beside-text [data-item]:nth-child(2)');
    await press('Enter');
    await textIs('“Every pond was let to a miller.” (Pell, 2001, p. 12)');
    await me.see('in the text');
    await inText();
    await kept();
    // From the text to the passage, and from the passage to the text.
    await me.page.click('[aria-label="Draft"] [data-from]');
    await me.see('Where this came from', '.foot');
    await me.open('/passages');
    await me.press('In the draft');
    await me.page.waitForSelector('[aria-label="Draft"][contenteditable="true"]:focus');
    await textIs('Every pond was let to a miller.');
    await toEnd();
  });

  it('leaves an author out, or puts it into the sentence, where one changes a citation', async () => {
    await me.page.click('.in-cite');
    await press('Enter');
    await me.page.waitForSelector('[role="combobox"]:focus');
    await me.page.click('.cite-field input[type="checkbox"]');
    await press('Control+Enter');
    await textIs('themselves Ng (see 2004b, pp. 7–9; Fitch, 2010)');
    await inText();
    await press('Control+z');
    await textIs('themselves (Fitch, 2010; see Ng, 2004b, pp. 7–9)');
    await toEnd();
    await press('Enter');
    await type('Of ponds, ');
    await cite(['-fitch', '3']);
    await textIs('Of ponds, (2010, p. 3)');
  });

  it('lists a work that is not cited, when one asks for it, and lets go of it', async () => {
    const cited = ['Fitch', 'Ng, T. H. (2004a)', 'Ng, T. H. (2004b)', 'Pell'];
    await listIs(cited);
    const add = async () => {
      await me.press('Add one that is not cited');
      await me.page.waitForSelector('[role="combobox"]:focus');
      await type('yew');
      await me.page.waitForSelector('#cite-found [aria-selected="true"]');
      await press('Enter', 'Enter');
      await listIs([...cited, 'Yew']);
    };
    await add();
    await me.press('Undo', '.toasts');
    await listIs(cited);
    await add();
    await me.press('Not in the list');
    await listIs(cited);
    await me.page.click('[aria-label="Draft"]');
    await toEnd();
  });

  it('has footnotes with citations in them', async () => {
    await press('Alt+n');
    await me.page.waitForSelector('[aria-label="Footnote"][contenteditable="true"]:focus');
    await type('More in ');
    await press('Alt+i');
    await me.page.waitForSelector('[role="combobox"]:focus');
    await type('pell');
    await me.page.waitForSelector('#cite-found [aria-selected="true"]');
    await press('Enter', 'Enter');
    await until('the citation in the note', () =>
      me.page.$eval('[aria-label="Footnote"][contenteditable]', (e) => e.textContent!.includes('Pell, 2001')),
    );
    await me.page.waitForSelector('[aria-label="Footnote"][contenteditable="true"]:focus');
    await press('Escape');
    await inText();
    await until('the note under the text', () =>
      me.page.$$eval('[aria-label="Notes"] li', (all) => all.map((e) => e.textContent!).join('').includes('More in (Pell, 2001)')),
    ); // prettier-ignore
    await kept();
  }, 300_000);

  it('is there again after the server was killed while one typed', async () => {
    await type(' Before the end.');
    await kept();
    await app.kill();
    await type(' While it was away.');
    await until('told so', () => me.page.$('.foot[data-state="away"]').then(Boolean));
    await me.see('What you write is kept in this browser.');
    await app.start();
    await kept();
    await openDraft();
    await textIs('Before the end. While it was away.');
  }, 300_000);

  it('two windows see what the other writes, and neither writes over the other', async () => {
    const other = await me.page.browser().newPage();
    const second = { ...me, page: other } as Person;
    await other.goto(`${app.url}/draft`);
    await other.waitForSelector('[aria-label="Draft"][contenteditable="true"]');
    await textIs('While it was away.', second);
    // One heading is changed there, a paragraph here.
    await other.evaluate(() => {
      const heading = document.querySelector('[aria-label="Draft"] h1')!;
      const range = document.createRange();
      range.selectNodeContents(heading);
      range.collapse(false);
      getSelection()!.removeAllRanges();
      getSelection()!.addRange(range);
      document.querySelector<HTMLElement>('[aria-label="Draft"]')!.focus();
    });
    await other.bringToFront();
    await other.keyboard.type(', in two windows');
    await kept(second);
    await me.page.bringToFront();
    await textIs('How a tide mill works, in two windows');
    await other.close();
  }, 300_000);

  it('follows the style of the project: notes with later mentions, and back', async () => {
    await me.page.evaluate(
      async (id) => {
        await fetch(`/api/projects/${id}`, { method: 'PATCH', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ style: 'chicago-fullnote-bibliography' }) });
      },
      project.id,
    ); // prettier-ignore
    await openDraft();
    const notes = () =>
      me.page.$$eval('[aria-label="Notes"] li span', (all) => all.map((e) => e.textContent!.trim()));
    await until('the notes', async () => (await notes()).length === 5);
    await until('printed', async () => (await notes())[0]!.includes('Marsh Letters'));
    // Fitch was cited in full in the first note.
    expect((await notes())[3]).toMatch(/^“?Why the Ponds Filled|^Fitch|^“Why/);
    await me.page.evaluate(
      async (id) => {
        await fetch(`/api/projects/${id}`, { method: 'PATCH', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ style: 'apa' }) });
      },
      project.id,
    ); // prettier-ignore
    await openDraft();
    await textIs('(Fitch, 2010; see Ng, 2004b, pp. 7–9)');
  }, 300_000);

  it('is looked through, and found and replaced in', async () => {
    await me.press('Checks');
    // An article without its number is all there is.
    await me.see('Cited records with fields missing');
    await me.see('Fitch 2010: issue');
    await me.press('Material');
    await me.page.click('[aria-label="Draft"] h1');
    await press('Control+f');
    await me.page.waitForSelector('[aria-label="Find in the text"]:focus');
    await type('tide');
    await me.see('1 of 2');
    await me.type('Put in its place', 'ebb');
    await me.press('Replace all');
    await textIs('How a ebb mill works');
    await press('Escape');
    await me.page.click('[aria-label="Draft"] h1');
    await press('Control+z');
    await textIs('How a tide mill works');
    await kept();
  }, 300_000);

  it('is held against what is kept: words that are neither quoted nor cited, with both places', async () => {
    const RUN = 'the sluice was opened by the boy whenever the horn was blown';
    await me.page.evaluate(async (said) => {
      const { items } = (await (await fetch('/api/sources?')).json()) as { items: { id: string; label: string }[] };
      const id = items.find((i) => i.label.startsWith('Yew'))!.id;
      await fetch(`/api/sources/${id}/copies?name=yew.txt`, { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: `Once, they say, ${said}, at night.` });
    }, RUN); // prettier-ignore
    await until('the copy', async () => app.rows('SELECT id FROM copy').length === 1);
    await me.page.click('[aria-label="Draft"]');
    await toEnd();
    await press('Enter');
    await type(`In those days ${RUN} and not before.`);
    await kept();
    await me.press('Checks');
    await me.press('Compare with all that is kept');
    await me.see('Neither quoted nor cited');
    await me.see('One run in one document');
    await me.see('12 words, as in');
    // One click to the place in the text, one to that in the document.
    expect(await me.page.$eval('[aria-label="Words of others"] a', (a) => decodeURIComponent((a as HTMLAnchorElement).href))).toContain(`?words=${RUN}`); // prettier-ignore
    await me.press(RUN);
    await me.press('Material');
    await me.page.click('[aria-label="Draft"]');
    await toEnd();
    for (let i = 0; i < `In those days ${RUN} and not before.`.length; i++) await press('Backspace');
    await press('Backspace');
    await kept();
  }, 300_000);

  it('is kept as a version by a name, compared, and brought back', async () => {
    await me.press('Versions');
    await me.type('Name of the version', 'First page');
    await me.press('Keep a version');
    await me.see('“First page” is kept.');
    await me.page.click('[aria-label="Draft"]');
    await toEnd();
    await type(' no more');
    await kept();
    await me.press('What differs');
    await until('the difference', () => me.page.$$eval('.changes mark', (all) => all.some((m) => m.textContent!.includes('no more')))); // prettier-ignore
    await me.press('Bring it back');
    await until('as it was', async () => !(await textOf()).includes('no more'));
    await kept();
  }, 300_000);

  it('is saved as .docx with headings and footnotes, and with citekeys', async () => {
    await me.press('Save the text…');
    await me.press('.docx');
    const docx = unzipSync(await downloadedBytes(me, 'draft.docx'));
    const xml = new TextDecoder().decode(docx['word/document.xml']);
    expect(xml).toContain('How a tide mill works, in two windows');
    expect(xml).toMatch(/w:pStyle w:val="Heading1"/);
    expect(xml.replace(/<[^>]+>/g, '')).toContain('(Pell, 2001, p. 12)');
    expect(new TextDecoder().decode(docx['word/footnotes.xml'])).toContain('More in ');
    await me.press('Markdown with citekeys');
    const archive = unzipSync(await downloadedBytes(me, 'draft.zip'));
    expect(new TextDecoder().decode(archive['draft.md'])).toMatch(/\[see @ng, pp\. 7-9; @fitch\]/);
  }, 300_000);

  it('is handed to the browser to be printed, as a page of its own', async () => {
    // The browser's print view is none of the page's: what matters is that it is asked for, of the right page.
    await me.page.evaluateOnNewDocument(() => {
      window.print = () => Object.assign(window.top!, { printed: document.body.innerText });
    });
    await openDraft();
    await me.press('Save the text…');
    await me.press('Print, or PDF');
    await until('the printed page', () =>
      me.page.evaluate(() => String((window as unknown as { printed?: string }).printed).includes('(Pell, 2001, p. 12)')),
    ); // prettier-ignore
    await openDraft();
  }, 300_000);

  it('prints a manuscript that was written elsewhere, and tells what is not here', async () => {
    await me.press('Written elsewhere…');
    const file = join(tmpdir(), `elsewhere-${process.pid}.md`);
    writeFileSync(file, 'Tides [@pell, p. 12] and @fitch.\n\nAnd [@nobody].\n');
    const input = (await me.page.$('input[aria-label="Manuscript"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(file);
    await me.see('2 citations are printed in');
    await me.see('One key has no source here');
    await me.see('line 3');
    const printed = new TextDecoder().decode(await downloadedBytes(me, basename(file).replace('.md', '-printed.md'))); // prettier-ignore
    expect(printed.split('\n')[0]).toBe('Tides (Pell, 2001, p. 12) and Fitch (2010).');
    expect(printed).toContain('And [@nobody].');
    // What is no manuscript is refused with words.
    writeFileSync(file.replace('.md', '.docx'), 'x');
    await input.uploadFile(file.replace('.md', '.docx'));
    await me.see('The file is damaged, or not what its name says.');
    await press('Escape');
  }, 300_000);

  it('has pictures of one’s own and tables, whose captions cite, and which are pointed at', async () => {
    await openDraft();
    await toEnd();
    await press('Enter');
    await type('Drawn by hand, see ');
    const file = join(tmpdir(), `gate-${process.pid}.png`);
    const canvas = createCanvas(300, 200);
    canvas.getContext('2d').fillRect(40, 40, 120, 90);
    writeFileSync(file, canvas.toBuffer('image/png'));
    const picker = (await me.page.$('input[aria-label="Picture"]')) as ElementHandle<HTMLInputElement>;
    await picker.uploadFile(file);
    // Its caption is asked for at once, and what it shows.
    await me.page.waitForSelector('[aria-label="Caption"][contenteditable="true"]:focus');
    await type('The gate, after ');
    await press('Alt+i');
    await me.page.waitForSelector('[role="combobox"]:focus');
    await type('pell');
    await me.page.waitForSelector('#cite-found [aria-selected="true"]');
    await press('Enter');
    await type('12');
    await press('Enter', 'Enter');
    await me.page.waitForSelector('[aria-label="Caption"][contenteditable="true"]:focus');
    await me.type('What it shows, for who does not see it', 'A gate that is shut');
    await press('Enter');
    await inText();
    await textIs('Figure 1. The gate, after (Pell, 2001, p. 12)');
    const shown = await until('the picture', () =>
      me.page.$eval('.in-figure img', (i) => (i as HTMLImageElement).naturalWidth > 0 && [(i as HTMLImageElement).alt, (i as HTMLImageElement).naturalWidth]),
    ); // prettier-ignore
    expect(shown).toEqual(['A gate that is shut', 300]);
    await toEnd();
    await me.press('Table');
    await me.page.waitForSelector('.over-table');
    await me.page.click('.over-table');
    await me.page.waitForSelector('[aria-label="Caption"][contenteditable="true"]:focus');
    await type('Ponds');
    await press('Enter');
    await inText();
    await textIs('Table 1. Ponds');
    await type('West');
    // What is no picture is refused with words, and the text stays as it was.
    writeFileSync(file, 'no picture');
    await picker.uploadFile(file);
    await me.see('This is no picture that is shown here', '.toasts');
    await press('Control+Home');
    await press('End', 'Enter');
    await type('See ');
    await me.press('Point at');
    await me.page.waitForSelector('.point-field select');
    await me.choose('Figure, table or section', 'Figure 1');
    await textIs('See Figure 1');
    await kept();
    // It is all there again, and the list holds what the caption cites alone.
    await openDraft();
    await textIs('Figure 1. The gate, after (Pell, 2001, p. 12)');
    await textIs('Table 1. Ponds');
    // What another window writes above it while a caption is open moves the figure, and not what is typed.
    await me.page.click('.in-figure');
    await press('Enter');
    await me.page.waitForSelector('[aria-label="Caption"][contenteditable="true"]:focus');
    const other = await me.page.browser().newPage();
    await other.goto(`${app.url}/draft`);
    await other.waitForSelector('[aria-label="Draft"][contenteditable="true"]:focus');
    await other.keyboard.down('Control');
    await other.keyboard.press('Home');
    await other.keyboard.up('Control');
    await other.keyboard.type('Somebody else on ');
    await kept({ ...me, page: other });
    await other.close();
    await me.page.bringToFront();
    await textIs('Somebody else on How');
    await me.page.waitForSelector('[aria-label="Caption"][contenteditable="true"]:focus');
    await type(', redrawn');
    await press('Enter');
    await textIs('Figure 1. The gate, after (Pell, 2001, p. 12), redrawn');
    await kept();
    await toEnd();
  }, 300_000);
});
