import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { beacons } from '../../stand-ins/trouble';
import { changeEdition } from '../../stand-ins/pages';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
});
afterAll(async () => {
  changeEdition(1);
  await me.leave();
  await app.stop();
});

const passages = () =>
  app.rows<{
    id: string;
    exact: string;
    kind: string;
    tint: string;
    gist: string;
    own_words: string;
    locator: string;
    anchor: string;
    copy_id: string;
    binned: string | null;
  }>('SELECT * FROM passage ORDER BY added');
const copyOf = (address: string) =>
  app.rows<{ id: string }>('SELECT id FROM copy WHERE address = ? ORDER BY captured', address).at(-1)!.id;
const marked = () =>
  me.page.$eval('iframe', (f) => {
    const words: Record<string, string> = {};
    for (const m of (f as HTMLIFrameElement).contentDocument!.querySelectorAll<HTMLElement>(
      'mark[data-passage]',
    ))
      words[m.dataset.passage!] = (words[m.dataset.passage!] ?? '') + m.textContent;
    return Object.values(words);
  });
/** Waits until exactly these words are marked in the page. */
const markedAre = (words: string[]) =>
  until(
    `the marks ${words.join(' | ')}`,
    async () => JSON.stringify((await marked()).sort()) === JSON.stringify([...words].sort()),
  );
const SENTENCE =
  'Within six years of a breach the pond floor had risen by a median of 31 cm, and pioneer species covered more than half of it.';

describe('what is typed of a passage', () => {
  it('waits when something comes between; pressed twice it is kept once; kept again it is told', async () => {
    await me.open('/');
    await me.capture('https://marshletters.example/articles/3-1-7');
    await me.see('Ferreira', '.tray .got');
    await me.open(`/copies/${copyOf('https://marshletters.example/articles/3-1-7')}`);
    await me.selectInPage(SENTENCE);
    await me.see('New passage', '.margin');
    await me.type('Gist', 'Half a thought');
    // Called away: Esc, and another day.
    await me.page.keyboard.press('Escape');
    await me.see('Begun and not kept', '.margin');
    await me.open(`/copies/${copyOf('https://marshletters.example/articles/3-1-7')}`);
    await me.press('Go on with it', '.margin');
    await me.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.sheet input')?.value === 'Half a thought',
    );
    await me.page.evaluate(() => {
      const keep = [...document.querySelectorAll('button')].find(
        (b) => b.textContent?.trim() === 'Keep passage',
      )!;
      keep.click();
      keep.click();
    });
    await me.see('Half a thought', '.card');
    await me.gone('Begun and not kept');
    expect(app.rows('SELECT id FROM passage')).toHaveLength(1);
    await me.selectInPage(SENTENCE);
    await me.see('You have kept these words already: quotation, “Half a thought”.', '.sheet');
    await me.page.keyboard.press('Escape');
    await me.press('Edit', '.card');
    await me.press('Put in the bin', '.sheet');
    await until(
      'no passage',
      async () => app.rows('SELECT id FROM passage WHERE binned IS NULL').length === 0,
    );
    await me.open('/bin');
    await me.press('Empty the bin…');
    await me.press('Delete for good', 'dialog');
    await me.see('The bin is empty');
  });
});

describe('quoting from a copy', () => {
  it('keeps a selected sentence with kind, tint, gist, own words and locator', async () => {
    await me.open('/');
    await me.capture('https://marshletters.example/articles/3-1-7');
    await me.see('Ferreira', '.tray .got');
    await me.open(`/copies/${copyOf('https://marshletters.example/articles/3-1-7')}`);
    await me.see('Select a sentence in the text');
    await me.selectInPage(SENTENCE);
    await me.see('New passage', '.margin');
    await me.press('Evidence');
    await me.type('Gist', 'Ponds refill fast once breached');
    await me.type('In my own words', 'the pond floor had risen by a median of a foot');
    await me.see('9 words in a row are the author’s', '.own .said');
    await me.type('In my own words', 'About a foot of mud in six years.');
    await me.see('In your own words', '.own .said');
    await me.choose('Kind of locator', 'page');
    await me.type('Locator', '9');
    await me.page.keyboard.press('Enter');
    await me.see('Ponds refill fast once breached', '.card');
    expect(passages()).toMatchObject([
      {
        exact: SENTENCE,
        kind: 'quotation',
        tint: 'evidence',
        gist: 'Ponds refill fast once breached',
        own_words: 'About a foot of mud in six years.',
        locator: '{"label":"page","value":"9"}',
        anchor: 'found',
      },
    ]);
  });

  it('is marked in the text after a reload, level with its card', async () => {
    await me.page.reload({ waitUntil: 'load' });
    await me.see('Ponds refill fast once breached', '.card');
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.querySelector('mark.evidence'),
    );
    await markedAre([SENTENCE]);
    const apart = await me.page.waitForFunction(() => {
      const frame = document.querySelector('iframe')!;
      const mark =
        frame.contentDocument!.querySelector('mark')!.getBoundingClientRect().top +
        frame.getBoundingClientRect().top;
      const card = document.querySelector('.card')!.getBoundingClientRect().top;
      return Math.abs(mark - card) < 12 ? 'level' : undefined;
    });
    expect(await apart.jsonValue()).toBe('level');
  });

  it('leads from Passages back to the exact place', async () => {
    await me.open('/passages');
    await me.see(SENTENCE);
    await me.press('Show in the text');
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.querySelector('mark.chosen'),
    );
    const inView = await me.page.waitForFunction(() => {
      const frame = document.querySelector('iframe')!;
      const mark = frame.contentDocument!.querySelector('mark.chosen')!.getBoundingClientRect();
      const top = mark.top + frame.getBoundingClientRect().top;
      return top > 100 && top < 700;
    });
    expect(await inView.jsonValue()).toBe(true);
  });

  it('is edited, put in the bin and brought back', async () => {
    await me.press('Edit', '.card');
    await me.press('Paraphrase');
    await me.type('Gist', 'Half a metre in a decade?');
    await me.press('Save');
    await me.see('Paraphrase', '.card');
    expect(passages()[0]).toMatchObject({ kind: 'paraphrase', gist: 'Half a metre in a decade?' });
    await me.press('Edit', '.card');
    await me.press('Put in the bin', '.sheet');
    await me.see('The passage is in the bin.');
    await markedAre([]);
    await me.open('/bin');
    await me.see('Half a metre in a decade?');
    await me.press('Bring it back');
    await me.see('The bin is empty');
    expect(passages()[0]!.binned).toBeNull();
  });

  it('keeps passages that overlap, and a selection over two paragraphs', async () => {
    await me.open(`/copies/${copyOf('https://marshletters.example/articles/3-1-7')}`);
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.querySelector('mark'),
    );
    await me.selectInPage('The rise was fastest where the old sluice channel');
    await me.see('New passage', '.margin');
    await me.press('Keep passage');
    await me.see('The rise was fastest', '.card');
    await markedAre([SENTENCE, 'The rise was fastest where the old sluice channel']);
  });
});

describe('a page that changes', () => {
  const address = 'https://livingreviews.example/tide-gates';
  it('is captured and quoted', async () => {
    changeEdition(1);
    await me.open('/');
    await me.capture(address);
    await me.see('Osei', '.tray .got');
    await me.open(`/copies/${copyOf(address)}`);
    for (const words of ['does no harm to the marsh behind it', 'is shut for one tide in ten']) {
      await me.selectInPage(words);
      await me.press('Keep passage');
      await me.see(words, '.card');
    }
  });

  it('says so when it has not changed', async () => {
    await me.press('Look again');
    await me.see('The page has not changed.');
  });

  it('finds its passages again when the text around them changed', async () => {
    changeEdition(2);
    await me.press('Look again');
    await me.see('2 of 2 passages were found in it again');
    await me.see('Moved with the text', '.card');
    await markedAre(['does no harm to the marsh behind it', 'is shut for one tide in ten']);
    expect(
      passages()
        .slice(-2)
        .map((p) => p.anchor),
    ).toEqual(['moved', 'moved']);
  });

  it('finds a passage whose words changed, and shows both wordings', async () => {
    changeEdition(3);
    await me.press('Look again');
    await me.see('2 of 2 passages were found in it again; 1 with changed words.');
    await me.see('The words have changed', '.card');
    await me.see('kept is shut for one tide in ten now is shut for three tides in ten', '.card');
    await markedAre(['does no harm to the marsh behind it', 'is shut for three tides in ten']);
    await me.open('/passages');
    await me.see('kept is shut for one tide in ten now is shut for three tides in ten');
    await me.press('Show in the text');
    await me.see('The words have changed', '.card');
  });

  it('reports the loss of a passage that was left out, and keeps it', async () => {
    changeEdition(4);
    await me.press('Look again');
    await me.see('1 of 2 passages were found in it again');
    expect(
      passages()
        .slice(-2)
        .map((p) => p.anchor)
        .sort(),
    ).toEqual(['lost', 'moved']);
    await me.open('/passages?lost=1');
    await me.see('is shut for one tide in ten');
    await me.see('no longer in the page');
    await me.press('Show in the text');
    await me.see('One passage is no longer in the page as it is now.');
  });
});

describe('a hostile page', () => {
  it('runs nothing and calls nobody, in Intake and in the reader', async () => {
    beacons.length = 0;
    const dialogs: string[] = [];
    me.page.on('dialog', (d) => void dialogs.push(d.message()));
    await me.open('/');
    await me.capture('https://hostile.example/');
    await me.see('Friendly page', '.tray .got');
    await me.press('Friendly page', '.tray');
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.body?.textContent?.includes('harmless enough'),
    );
    await me.open(`/copies/${copyOf('https://hostile.example/')}`);
    await me.page.waitForFunction(() =>
      document.querySelector('iframe')?.contentDocument?.body?.textContent?.includes('harmless enough'),
    );
    await me.selectInPage('looks harmless enough to keep');
    await me.press('Keep passage');
    await me.see('looks harmless enough to keep', '.card');
    const left = await me.page.$eval('iframe', (f) => {
      const doc = (f as HTMLIFrameElement).contentDocument!;
      const handlers = [...doc.querySelectorAll('*')].flatMap((e) =>
        e.getAttributeNames().filter((n) => n.startsWith('on') || n === 'style' || n === 'src'),
      );
      return {
        handlers,
        tags: [
          ...doc.body.querySelectorAll(
            'script, style, svg, iframe, object, embed, form, input, video, img, link, meta, base',
          ),
        ].map((e) => e.tagName),
        hrefs: [...doc.querySelectorAll('a[href]')].map((a) => a.getAttribute('href')),
      };
    });
    expect(left).toEqual({ handlers: [], tags: [], hrefs: [] });
    expect(await me.page.evaluate(() => (window as unknown as { pwned?: number }).pwned)).toBeUndefined();
    expect(beacons).toEqual([]);
    expect(dialogs).toEqual([]);
  });
});
