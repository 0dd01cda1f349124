/** Arranging what one will write: an outline made by keys, filled from the shelf, moved about, saved. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { downloaded, startApp, until, visit, type App, type Person } from './app';

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

beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.open('/sources');
  project = await post('/api/projects', { name: 'Thesis', style: 'apa', locale: 'en-US' });
  await me.open('/sources');
  await me.importPasted(
    '@book{pell, title={Ledgers of the shore}, author={Pell, Margaret}, publisher={Mole Press}, year={2001}} @book{ng, title={Gates that close themselves}, author={Ng, Tsz Ho}, publisher={Mole Press}, year={2004}}',
  );
  await me.see('2 sources added');
  const { items } = (await me.page.evaluate(async () => (await fetch('/api/sources?')).json())) as {
    items: { id: string; label: string }[];
  };
  const [ng, pell] = ['Ng', 'Pell'].map((who) => items.find((i) => i.label.startsWith(who))!.id);
  const kept = { kind: 'quotation', tint: 'claim', copyId: null, selectors: null, visibility: 'library', ownWords: '', tags: [] }; // prettier-ignore
  await post('/api/passages', { ...kept, sourceId: pell, exact: 'Every pond was let to a miller.', gist: 'Ponds were let', locator: { label: 'page', value: '12' } }); // prettier-ignore
  await post('/api/passages', { ...kept, sourceId: ng, exact: 'The gate shuts by the weight of the ebb.', gist: 'Shut by the ebb', locator: { label: 'page', value: '7' } }); // prettier-ignore
  await me.open('/outline');
  await me.see('Sections are the headings of what you will write');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

/** The outline as it is seen: each line with how deep it stands and its first words. */
const outline = () =>
  me.page.$$eval('.lines [data-line]', (all) =>
    all.map(
      (e) =>
        '.'.repeat(Number(e.getAttribute('aria-level')) - 1) +
        ((e.querySelector('.gist') ?? e.querySelector('.heading, .text'))?.textContent ?? '…').trim(),
    ),
  );
const outlineIs = (expected: string[]) =>
  until(`the outline ${expected.join(' | ')}`, async () => (await outline()).join('|') === expected.join('|')).catch(
    async (e: unknown) => {
      throw new Error(`${String(e)}; it is ${(await outline()).join(' | ')}`);
    },
  ); // prettier-ignore
const press = async (...keys: string[]) => {
  for (const key of keys) {
    const parts = key.split('+');
    for (const held of parts.slice(0, -1)) await me.page.keyboard.down(held as 'Alt');
    await me.page.keyboard.press(parts.at(-1) as 'Enter');
    for (const held of parts.slice(0, -1).reverse()) await me.page.keyboard.up(held as 'Alt');
  }
};
const writing = (label = 'A sentence of your own') =>
  me.page.waitForSelector(`.lines textarea[aria-label="${label}"]:focus`);
/** Types words into the field that is open, which is then another, and empty, or gone. */
const say = async (words: string, then: 'Enter' | 'Escape' = 'Enter') => {
  await writing();
  await me.page.keyboard.type(words);
  await press(then);
};
const focused = (words: string) =>
  until(`${words} in focus`, () =>
    me.page.evaluate((w) => document.activeElement?.matches('[data-line]') && document.activeElement.textContent!.includes(w), words)); // prettier-ignore
const emptyField = () =>
  until('an empty field', () =>
    me.page.evaluate(() => (document.activeElement as HTMLTextAreaElement)?.value === ''),
  );

describe('an outline', () => {
  it('is begun by keys: a section, sentences one after the other, a section under it', async () => {
    await me.press('New section');
    await writing('Name of the section');
    await me.page.keyboard.type('How a tide mill works');
    await press('Enter');
    // One goes on below with a first sentence.
    for (const words of ['Mills ground with the tide.', 'The miller slept by the moon.']) {
      await emptyField();
      await say(words);
    }
    await emptyField();
    await press('Escape');
    await outlineIs(['How a tide mill works', '.Mills ground with the tide.', '.The miller slept by the moon.']);
    await focused('The miller slept');
    await me.see('claims without evidence');
    await press('Shift+Enter');
    await writing('Name of the section');
    await me.page.keyboard.type('Gates');
    await press('Enter');
    await emptyField();
    await press('Escape');
    await focused('Gates');
    await press('Alt+Shift+ArrowRight');
    await outlineIs(['How a tide mill works', '.Mills ground with the tide.', '.The miller slept by the moon.', '.Gates']);
  }, 300_000); // prettier-ignore

  it('has a shelf that is narrowed to one source by a click, and to all again', async () => {
    const onShelf = () => me.page.$$eval('.shelf [data-shelf]', (all) => all.length);
    expect(await onShelf()).toBe(2);
    await me.press('Pell 2001', '.shelf');
    await until('only what is of Pell', async () => (await onShelf()) === 1);
    await me.press('Pell 2001 ×', '.shelf');
    await until('all again', async () => (await onShelf()) === 2);
    await me.page.$$eval('.lines [data-line]', (all) =>
      (all.find((line) => line.textContent!.includes('Gates')) as HTMLElement).focus(),
    );
  });

  it('is filled from the shelf by keys, behind the line one is at', async () => {
    await focused('Gates');
    await press('Home', 'ArrowDown');
    await focused('Mills ground');
    await me.page.focus('.shelf [data-shelf] input');
    await press(' ', 'ArrowDown', ' ');
    await until('two ticked', () => me.page.$$eval('.shelf [data-shelf] input:checked', (all) => all.length === 2));
    await press('p');
    await me.see('2 passages put in How a tide mill works.');
    await outlineIs([
      'How a tide mill works',
      '.Mills ground with the tide.',
      '.Shut by the ebb',
      '.Ponds were let',
      '.The miller slept by the moon.',
      '.Gates',
    ]);
    await me.see('Every passage of this project stands in a section.');
    await me.see('2 sources · 2 passages');
    await focused('Ponds were let');
  }, 300_000); // prettier-ignore

  it('is moved by keys, across sections and several at once, and every move is taken back', async () => {
    await press('ArrowDown');
    await focused('The miller slept');
    await press('Alt+Shift+ArrowDown');
    const moved = [
      'How a tide mill works',
      '.Mills ground with the tide.',
      '.Shut by the ebb',
      '.Ponds were let',
      '.Gates',
      '..The miller slept by the moon.',
    ];
    await outlineIs(moved);
    await focused('The miller slept');
    await press('ArrowUp', 'ArrowUp');
    await focused('Ponds were let');
    await press(' ', 'Shift+ArrowUp', 'Alt+Shift+ArrowRight');
    await outlineIs(['How a tide mill works', '.Mills ground with the tide.', '.Gates', '..Shut by the ebb', '..Ponds were let', '..The miller slept by the moon.']);
    await press('Control+z');
    await outlineIs(moved);
    await press('Control+y');
    await outlineIs(['How a tide mill works', '.Mills ground with the tide.', '.Gates', '..Shut by the ebb', '..Ponds were let', '..The miller slept by the moon.']);
  }, 300_000); // prettier-ignore

  it('lets a sentence be cut in two, joined, made a question, and taken out', async () => {
    await press('Home', 'ArrowDown');
    await focused('Mills ground');
    await press('F2');
    await writing();
    await press('Home');
    for (let i = 0; i < 'Mills ground'.length; i++) await press('ArrowRight');
    await press('Control+Enter');
    await until('the second half being written', () =>
      me.page.evaluate(() => (document.activeElement as HTMLTextAreaElement)?.value === 'with the tide.'));
    await press('Control+Backspace');
    await until('both joined', () =>
      me.page.evaluate(() => (document.activeElement as HTMLTextAreaElement)?.value === 'Mills ground with the tide.'));
    await press('Escape');
    await focused('Mills ground with the tide.');
    await me.press('Make it a question');
    await me.see('It is a question.');
    await me.page.$eval('.lines .current', (e) => (e as HTMLElement).focus());
    await press('Delete');
    await outlineIs(['How a tide mill works', '.Gates', '..Shut by the ebb', '..Ponds were let', '..The miller slept by the moon.']);
    await press('Control+z');
    await me.see('Mills ground with the tide.');
  }, 300_000); // prettier-ignore

  it('has its sections cut in two and joined', async () => {
    await press('End', 'ArrowUp');
    await focused('Ponds were let');
    await me.press('Begin a section here');
    await writing('Name of the section');
    await me.page.keyboard.type('Leases');
    await press('Enter');
    const cut = ['How a tide mill works', '.Mills ground with the tide.', '.Gates', '..Shut by the ebb', '.Leases', '..Ponds were let', '..The miller slept by the moon.'];
    await outlineIs(cut);
    await focused('Ponds were let');
    await press('ArrowUp');
    await focused('Leases');
    await me.press('Join to the one before');
    await me.see('Leases is part of Gates now.');
    await outlineIs(cut.filter((line) => line !== '.Leases'));
    await press('Control+z');
    await outlineIs(cut);
    await press('Control+z');
    await outlineIs(cut.filter((line) => line !== '.Leases'));
  }, 300_000); // prettier-ignore

  it('folds, is there again as it was, and goes out with its citations', async () => {
    await press('Home');
    await focused('How a tide mill works');
    await press('ArrowLeft');
    await outlineIs(['How a tide mill works']);
    await press('ArrowRight');
    await me.open('/outline');
    await me.see('Ponds were let');
    await me.press('Save the outline…');
    await me.press('Markdown');
    const text = await downloaded(me, 'outline.md');
    expect(text).toContain('### Gates\n\n> “The gate shuts by the weight of the ebb.” (Ng, 2004, p. 7)');
    expect(text).toContain('## References\n\nNg, T. H. (2004). *Gates that close themselves*. Mole Press.');
  }, 300_000); // prettier-ignore

  it('is read from a file, said in the words of the file where it cannot be, and taken back', async () => {
    const give = async (name: string, text: string) => {
      const path = join(me.downloads, name);
      await writeFile(path, text);
      const input = (await me.page.$('input[aria-label="A file with an outline"]'))!;
      await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(path);
    };
    await give('empty.md', '');
    await me.see('empty.md has no headings that could be sections');
    await give(
      'plan.md',
      '# Plan\n\n## What grew back\n\nMarsh came back.\n\n## What remains\n\nWho pays?\n',
    );
    await me.see('plan.md: 2 sections with 2 sentences and questions, at the end of the outline.');
    await me.see('Marsh came back.', '.lines');
    await press('Control+z');
    await me.gone('Marsh came back.', '.lines');
  }, 300_000);

  it('tells who writes over what was written elsewhere meanwhile', async () => {
    const { page } = me;
    const line = (await page.$('.lines [aria-level="3"]:last-child'))!;
    await line.focus();
    await focused('The miller slept');
    const [sectionId, ref] = (await line.evaluate((e) => e.getAttribute('data-line')!)).split(' ');
    await press('F2');
    await writing();
    await page.keyboard.type(' He woke by it.');
    const was = 'The miller slept by the moon.';
    const write = {
      act: 'write',
      item: { sectionId, ref },
      kind: 'sentence',
      words: `${was} So did the cat.`,
      was,
    };
    await post(`/api/projects/${project.id}/outline`, { changes: [write] });
    await press('Enter');
    await me.see('Somebody wrote here meanwhile.');
    await me.see('Written here meanwhile: The miller slept by the moon. So did the cat.');
    await writing();
    await press('Enter');
    await me.see('The miller slept by the moon. He woke by it.', '.lines');
  }, 300_000);

  it('is moved by a finger that rests first; one that moves at once scrolls', async () => {
    await me.page.setViewport({ width: 1280, height: 800, hasTouch: true });
    await me.open('/outline');
    await me.page.waitForSelector('.lines [data-line]');
    const before = await outline();
    const session = await me.page.createCDPSession();
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
      session.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: type === 'touchEnd' ? [] : [{ x, y }],
      });
    const boxOf = async (n: number) => {
      const box = await (await me.page.$$('.lines .line.item'))[n]!.boundingBox();
      return { x: box!.x + 120, y: box!.y, height: box!.height };
    };
    const [first, second] = [await boxOf(0), await boxOf(1)];
    // At once: nothing is dragged.
    await touch('touchStart', second.x, second.y + second.height / 2);
    await touch('touchMove', first.x, first.y + 2);
    await touch('touchEnd');
    expect(await me.page.$('.under-finger')).toBeNull();
    expect(await outline()).toEqual(before);
    await touch('touchStart', second.x, second.y + second.height / 2);
    await me.page.waitForSelector('.under-finger');
    for (const share of [0.3, 0.6, 0.9, 1])
      await touch('touchMove', first.x, second.y + (first.y + 3 - second.y) * share);
    await until('where it would go', () =>
      me.page.$$eval('.lines .line.item', (all) => (all[0] as HTMLElement).dataset.drop === 'reorder-before'),
    );
    await touch('touchEnd');
    // From the section below to the beginning of the first.
    const after = before.filter((line) => line !== '..Shut by the ebb');
    after.splice(1, 0, '.Shut by the ebb');
    await outlineIs(after);
    expect(await me.page.$('.under-finger')).toBeNull();
    await me.press('Undo', '.toasts');
    await outlineIs(before);
    await me.page.setViewport({ width: 1280, height: 800, hasTouch: false });
  }, 300_000);
});
