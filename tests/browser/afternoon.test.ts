/** An afternoon's reading: a page and a PDF are read by keys and by mouse, everything worth keeping is kept, filed and taken out. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DOCUMENTS } from '../../stand-ins/documents';
import { downloaded, startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
const ARTICLE = 'https://marshletters.example/articles/3-1-7';
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.open('/');
  await me.capture(ARTICLE);
  await me.see('Ferreira', '.tray .got');
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

interface Row {
  id: string;
  kind: string;
  tint: string;
  exact: string;
  wording: string | null;
  gist: string;
  own_words: string;
  locator: string | null;
  tags: string;
  copy_id: string | null;
}
const passages = () => app.rows<Row>('SELECT * FROM passage WHERE binned IS NULL ORDER BY added');
const copyOf = (kind: string) =>
  app
    .rows<{ id: string; source_id: string }>(
      'SELECT id, source_id FROM copy WHERE kind = ? ORDER BY captured',
      kind,
    )
    .at(-1)!;
const press = async (...keys: Parameters<Person['page']['keyboard']['press']>[0][]) => {
  for (const key of keys) await me.page.keyboard.press(key);
};
const inFrame = <T>(ask: (doc: Document) => T) =>
  me.page.evaluate(
    (source) => (0, eval)(`(${source})`)(document.querySelector('iframe')!.contentDocument!) as T,
    ask.toString(),
  );
const ready = async (path: string) => {
  await me.open(path);
  await me.page.waitForFunction(() =>
    document.querySelector('iframe')?.contentDocument?.body?.textContent?.trim(),
  );
};

describe('a page', () => {
  it('is kept with its pictures, shown from our own address', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.page.waitForFunction(() => {
      const picture = document.querySelector('iframe')?.contentDocument?.querySelector('img');
      return picture?.complete && picture.naturalWidth === 720;
    });
    expect(await inFrame((doc) => doc.querySelector('img')!.getAttribute('src'))).toMatch(
      /^pictures\/[0-9a-f]{64}$/,
    );
    await me.page.click('#quiet-reading');
    await me.press('Larger letters');
    await me.choose('Paper', 'warm');
    await until('larger letters on warm paper', () =>
      inFrame(
        (doc) =>
          doc.documentElement.classList.contains('warm') &&
          doc.defaultView!.getComputedStyle(doc.body).fontSize === '18px',
      ),
    );
    await press('Escape');
  });
});

describe('reading by keys', () => {
  it('selects with a caret and keeps, by one key for each kind and tint', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.page.waitForFunction(() => document.querySelector('.on-whole'));
    await press('k');
    await until('the caret', () => inFrame((doc) => Boolean(doc.querySelector('.caret'))));
    const keep = async (key: 'r' | '2' | 'm') => {
      const before = passages().length;
      await press('ArrowDown', 'ArrowDown', 'Home');
      await me.page.keyboard.down('Shift');
      await press('End');
      await me.page.keyboard.up('Shift');
      await until('a selection', () => inFrame((doc) => doc.getSelection()?.isCollapsed === false));
      await press(key);
      await until('a passage more', async () => passages().length === before + 1);
      await until('its mark', () =>
        me.page.evaluate(
          (n) => document.querySelector('iframe')!.contentDocument!.querySelectorAll('mark').length >= n,
          before + 1,
        ),
      );
      return passages().at(-1)!;
    };
    expect(await keep('r')).toMatchObject({ kind: 'response', tint: 'claim' });
    expect(await keep('2')).toMatchObject({ kind: 'quotation', tint: 'evidence' });
    expect(await keep('m')).toMatchObject({ kind: 'mark', tint: 'evidence' });
    for (const { exact } of passages()) expect(exact.trim().length).toBeGreaterThan(5);
    // Enter opens the sheet of what is selected instead.
    await press('ArrowDown', 'Home');
    await me.page.keyboard.down('Shift');
    await press('End');
    await me.page.keyboard.up('Shift');
    await press('Enter');
    await me.see('New passage', '.margin');
    await press('Escape', 'Escape');
    expect(passages()).toHaveLength(3);
  });
});

describe('keeping', () => {
  const SENTENCE = 'Within six years of a breach the pond floor had risen by a median of 31 cm';
  it('quotes with omissions and insertions, and says what was changed', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.selectInPage(SENTENCE);
    await me.see('New passage', '.margin');
    await me.press('Quote it with omissions or insertions');
    await me.type(
      'The quotation as it prints',
      '[W]ithin six years […] the floor had risen by a median of 31 cm',
    );
    await me.see('does not stand so in the document', '.sheet');
    await me.type(
      'The quotation as it prints',
      '[W]ithin six years […] the pond floor [of Gullmere] had risen by a median of 31 cm',
    );
    await me.see('left out: of a breach', '.sheet');
    await me.see('put in: of Gullmere', '.sheet');
    await me.type(
      'In my own words',
      'In six years a breach raised it: the pond floor had risen by a median of much.',
    );
    await me.see('9 words in a row are the author’s', '.own .said');
    const marked = await me.page.$eval('.own .shade mark', (m) => m.textContent);
    expect(marked).toBe('the pond floor had risen by a median of');
    await me.type('In my own words', 'They say “the pond floor had risen by a median of 31 cm”.');
    await me.see('In your own words', '.own .said');
    await me.type('Add a tag', 'mud');
    await press('Enter');
    await me.see('mud', '.tag');
    await me.type('Gist', 'Six years');
    await press('Enter');
    await me.see('Six years', '.card');
    expect(passages().at(-1)).toMatchObject({
      wording: '[W]ithin six years […] the pond floor [of Gullmere] had risen by a median of 31 cm',
      tags: '["mud"]',
    });
  });
  it('covers the original while one writes from memory', async () => {
    await me.press('Show in the text: Six years', '.margin');
    await me.press('Edit', '.card.chosen');
    await me.page.click('.cover label');
    await until('the cover', () => inFrame((doc) => Boolean(doc.querySelector('mark.covered'))));
    await press('Escape');
    await until('no cover', () => inFrame((doc) => !doc.querySelector('mark.covered')));
  });
  it('joins two selections with an omission between, and keeps both places', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.selectInPage('The limit is the custom of shutting the gates');
    await me.see('New passage', '.margin');
    await me.type('Gist', 'Custom is the limit');
    await me.press('Add other words […]', '.sheet');
    await me.see('Select them in the document', '.sheet');
    await me.selectInPage('Sediment is not the limit here');
    await until('both', () => inFrame((doc) => doc.querySelectorAll('mark.drawn').length >= 2));
    await me.page.focus('.sheet input[placeholder="Its point, in one line"]');
    await press('Enter');
    await me.see('Custom is the limit', '.card');
    const { exact, further } = app.rows<{ exact: string; further: string }>(
      'SELECT exact, further FROM passage ORDER BY added DESC LIMIT 1',
    )[0]!;
    expect(exact).toBe('Sediment is not the limit here […] The limit is the custom of shutting the gates');
    expect(JSON.parse(further)).toMatchObject([
      { quote: { exact: 'The limit is the custom of shutting the gates' } },
    ]);
  });
  it('says a word on the whole document, and asks for the place of what has none', async () => {
    await me.press('A word on the whole of it');
    await me.type('Gist', 'A careful paper');
    // Called away; what was typed waits.
    await press('Escape');
    await me.press('A word on the whole of it');
    await me.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.sheet .grow input')?.value === 'A careful paper',
    );
    await press('Enter');
    await me.see('A careful paper', '.on-whole');
    expect(passages().at(-1)).toMatchObject({ kind: 'response', exact: '', locator: null });
    await me.open(`/sources/${copyOf('page').source_id}`);
    // A press while the page is being renewed may meet a button that is gone a moment later.
    await until('the form', async () => {
      if (await me.page.$('dialog[open]')) return true;
      await me.press('Write one from print');
      return false;
    });
    await me.see('On which page does it stand?', 'dialog');
    await me.type('Words of the work', 'Read in the reading room.');
    await me.press('Keep passage', 'dialog');
    await me.see('The passage is kept.');
    expect(passages().at(-1)).toMatchObject({ copy_id: null, exact: 'Read in the reading room.' });
    await me.open('/passages?state=no%20place');
    await me.see('Read in the reading room.', '[data-passage]');
    await me.press('Edit', '[data-passage]');
    await me.type('Locator', '12');
    await me.press('Save', 'dialog');
    await me.gone('Read in the reading room.', '[data-passage]');
  });
  it('sets a passage to other words selected while it is changed', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.press('Show in the text: Six years', '.margin');
    await me.press('Edit', '.card.chosen');
    await me.page.waitForSelector('.sheet');
    await me.selectInPage('pioneer species covered more than half of it');
    await me.press('Set the passage there');
    await me.see('The passage stands there now.');
    await until('the other words', async () =>
      passages().some(
        (p) => p.gist === 'Six years' && p.exact === 'pioneer species covered more than half of it',
      ),
    );
    await me.press('Undo', '.toasts');
    await until('the words of before', async () =>
      passages().some((p) => p.gist === 'Six years' && p.exact === SENTENCE),
    );
  });
});

/** Where something stands on the screen; inside the frame where it stands there. */
const boxOf = async (selector: string, framed = false) =>
  me.page.evaluate(
    (found, inside) => {
      const frame = document.querySelector('iframe')!;
      const element = (inside ? frame.contentDocument! : document).querySelector(found)!;
      element.scrollIntoView({ block: 'center' });
      const { left, top, width, height } = element.getBoundingClientRect();
      const at = inside ? frame.getBoundingClientRect() : { left: 0, top: 0 };
      return { x: left + at.left, y: top + at.top, width, height };
    },
    selector,
    framed,
  );
const drag = async (from: [number, number], to: [number, number]) => {
  const { mouse } = me.page;
  await mouse.move(...from);
  await mouse.down();
  await mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2);
  await mouse.move(...to);
  await mouse.up();
};
const figure = () =>
  JSON.parse(
    app.rows<{ figure: string }>('SELECT figure FROM passage WHERE figure IS NOT NULL ORDER BY added').at(-1)!
      .figure,
  ) as { number: string; alt: string; drawing: { shape: string; text?: string }[]; image: { width: number } };

describe('a figure', () => {
  it('is cut out by a box, with its number and caption found beside it, and an arrow drawn over it', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.page.waitForFunction(() => {
      const picture = document.querySelector('iframe')?.contentDocument?.querySelector('.pictured img');
      return (picture as HTMLImageElement | null)?.naturalWidth === 720;
    });
    await me.press('Cut out a figure');
    await me.see('Draw a box around the figure');
    const at = await boxOf('.pictured', true);
    await drag([at.x + at.width / 2, at.y + 4], [at.x + at.width - 4, at.y + at.height - 4]);
    await me.see('New figure', '.margin');
    await me.page.waitForFunction(() => {
      const picture = document.querySelector<HTMLImageElement>('.sheet .picture img');
      return (
        picture?.complete && picture.naturalWidth > 300 && document.querySelector('.sheet .layer canvas')
      );
    });
    const value = (label: string) =>
      me.page.evaluate(
        (words) =>
          [...document.querySelectorAll('.sheet label')]
            .find((l) => l.textContent?.includes(words))
            ?.querySelector<HTMLInputElement>('input, textarea')?.value,
        label,
      );
    expect(await value('Number')).toBe('Figure 1');
    expect(await value('Caption')).toBe('Rise of pond floors.');
    expect(await value('What it shows')).toBe('Rise of pond floors against years since the breach');
    await me.press('Arrow', '.sheet .tools');
    const picture = await boxOf('.sheet .picture');
    await drag(
      [picture.x + picture.width * 0.2, picture.y + picture.height * 0.8],
      [picture.x + picture.width * 0.6, picture.y + picture.height * 0.3],
    );
    await me.see('1. Arrow', '.sheet .drawn');
    await me.type('Gist', 'Fast at first');
    await press('Enter');
    await me.see('Fast at first', '.card');
    expect(figure()).toMatchObject({ number: 'Figure 1', drawing: [{ shape: 'arrow' }] });
    expect(figure().image.width).toBeGreaterThan(300);
    expect(figure().image.width).toBeLessThan(400);
    expect(passages().at(-1)).toMatchObject({ kind: 'figure', locator: '{"label":"figure","value":"1"}' });
  });
  it('is cut out, drawn on and changed by keys alone', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.querySelector('.pictured'),
    );
    await press('x');
    await me.see('Draw a box around the figure');
    await inFrame((doc) => doc.querySelector<HTMLElement>('.pictured')!.focus());
    await press('Enter');
    await me.see('New figure', '.margin');
    await me.page.waitForFunction(() => document.querySelector('.sheet .layer canvas'));
    await me.page.focus('.sheet .tools button:nth-child(5)');
    await press('Enter');
    await until('words to write', () =>
      me.page.evaluate(() => document.activeElement?.getAttribute('aria-label') === 'Words over the figure'),
    );
    await me.page.keyboard.type('the bend');
    await me.page.focus('.sheet .picture');
    await press('ArrowRight', 'ArrowDown');
    await me.type('Gist', 'All of it');
    await press('Enter');
    await me.see('All of it', '.card');
    expect(figure()).toMatchObject({
      drawing: [{ shape: 'words', text: 'the bend' }],
      image: { width: 720 },
    });
    // What is begun waits when one is called away.
    await press('x');
    await inFrame((doc) => doc.querySelector<HTMLElement>('.pictured')!.focus());
    await press('Enter');
    await me.see('New figure', '.margin');
    await me.type('Gist', 'Called away');
    await ready(`/copies/${copyOf('page').id}`);
    await me.see('A figure, begun and not kept', '.margin');
    await me.press('Throw away', '.margin');
    await me.gone('A figure, begun and not kept');
  });
});

describe('filing', () => {
  it('puts down what is to be done, links passages both ways, and undoes it', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.press('Show in the text: Six years', '.margin');
    await me.press('Edit', '.card.chosen');
    await me.type('What is to be done', 'Check the table');
    await me.press('Add', '.filing');
    await me.see('Check the table', '.filing');
    await me.choose('What it says of the other', 'contradicts');
    await me.choose('The other passage', 'A careful paper');
    await me.press('Link', '.filing');
    await me.see('contradicts A careful paper', '.filing');
    await press('Escape');
    await me.see('linked with another', '.on-whole');
    await me.see('one thing to do', '.card');
    await me.open('/');
    await me.see('Check the table', '.desk');
    await me.page.click('.desk input[type="checkbox"]');
    await me.see('Ticked off.');
    await me.gone('Check the table', '.desk section');
    await me.press('Undo', '.toasts');
    await me.see('Check the table', '.desk');
  });
});

describe('finding again', () => {
  it('finds words in the document with hits counted, and opens where one stopped', async () => {
    await ready(`/copies/${copyOf('page').id}`);
    await me.press('Find in this document');
    await me.type('Find in this document', 'pond');
    await me.see('1 of', '.find');
    await press('Enter');
    await me.see('2 of', '.find');
    await me.type('Find in this document', 'no such word');
    await me.see('Not in this document', '.find');
    await press('Escape');
    await me.page.waitForFunction(() => !document.querySelector('.find'));
    await me.page.$eval('.reader', (r) => r.scrollTo(0, 700));
    await until(
      'the place',
      async () => app.rows<{ at: number }>('SELECT at FROM reading_place WHERE at > 300').length > 0,
    );
    await ready(`/copies/${copyOf('page').id}`);
    await until('the place again', () => me.page.$eval('.reader', (r) => r.scrollTop > 300));
    await me.open('/sources');
    await me.see('% read', '[data-source]');
  });
  it('groups, selects and takes passages out, side by side, as .docx and on the clipboard', async () => {
    await me.open('/passages?sort=source&group=kind');
    await me.see('Response', 'h2.head');
    await me.press('Select them', 'h2.head');
    await me.page.waitForSelector('footer.bar');
    await me.type('Tag the selected', 'to discuss');
    await press('Enter');
    await me.see('tagged “to discuss”');
    await me.press('Select none', 'footer.bar');
    await me.press('Copy or save…', 'header.head');
    await me.press('.docx', '[role="dialog"]');
    await until('the file', () =>
      readFile(join(me.downloads, 'passages.docx')).then(
        (bytes) => bytes.length > 0,
        () => false,
      ),
    );
    const docx = unzipSync(await readFile(join(me.downloads, 'passages.docx')));
    const xml = Buffer.from(docx['word/document.xml']!).toString('utf8');
    expect(xml).toContain('[W]ithin six years […] the pond floor [of Gullmere]');
    expect(xml.match(/<w:tr[ >]/g)).toHaveLength(passages().length);
    expect(Object.keys(docx).filter((name) => name.endsWith('.png'))).toHaveLength(2);
    await me.press('Copy', '[role="dialog"]');
    await me.see('passages are copied, cited.');
    const copied = await me.page.evaluate(() => navigator.clipboard.readText());
    expect(copied).toContain('(Ferreira');
  });
});

describe('a PDF', () => {
  it('has pages to turn and go to by their printed numbers, and its text is selected over them', async () => {
    const bytes = await DOCUMENTS['estuaryshore.example/pdf/12-2-101.pdf']!.bytes();
    const { source_id } = copyOf('page');
    const made = await me.page.evaluate(
      async (id, data) =>
        (
          await fetch(`/api/sources/${id}/copies?name=a.pdf`, {
            method: 'POST',
            headers: { 'content-type': 'application/octet-stream' },
            body: new Uint8Array(data),
          })
        ).ok,
      source_id,
      [...bytes],
    );
    expect(made).toBe(true);
    await until('the PDF', async () => app.rows('SELECT id FROM copy WHERE kind = ?', 'pdf').length > 0);
    await ready(`/copies/${copyOf('pdf').id}`);
    await me.see('1 of 8', '.bar');
    await me.type('Printed page', '103');
    await press('Enter');
    await me.see('3 of 8', '.bar');
    // Pages that are not seen are let go of.
    await until('few pictures', () => inFrame((doc) => doc.querySelectorAll('.face > img').length <= 6));
    await me.press('Two beside each other');
    await until('two beside', () => inFrame((doc) => doc.body.classList.contains('two-up')));
    await me.press('Two beside each other');
    await me.press('Turn the pages');
    await until('a turn', () =>
      inFrame((doc) => doc.querySelector<HTMLElement>('.face')!.style.transform.includes('90deg')),
    );
    for (let i = 0; i < 3; i++) await me.press('Turn the pages');
    await me.press('Contents', '.bar');
    await me.page.waitForSelector('nav.panel img');
    await me.press('Page 102', 'nav.panel');
    await me.see('2 of 8', '.bar');
  });
  it('goes out as annotations that say its page, and with its marks in it', async () => {
    await me.selectInPage('Every pond began to fill');
    await me.see('New passage', '.margin');
    await me.type('Gist', 'At once');
    await press('Enter');
    await me.see('At once', '.card');
    const { locator } = passages().at(-1)!;
    expect(locator).toBe('{"label":"page","value":"101"}');
    await me.press('Passages out and in');
    await me.press('Save passages as annotations (JSON-LD)');
    const page = JSON.parse(await downloaded(me, 'annotations.jsonld')) as {
      items: { target: { selector: { type: string; value?: string }[] } }[];
    };
    expect(page.items[0]!.target.selector[0]).toMatchObject({ type: 'FragmentSelector', value: 'page=1' });
    const marked = await me.page.evaluate(
      async (path) => (await (await fetch(path)).arrayBuffer()).byteLength,
      `/copies/${copyOf('pdf').id}/marked`,
    );
    expect(marked).toBeGreaterThan(1_000);
  });
});
