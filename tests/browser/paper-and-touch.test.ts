/** What the browser's own Print puts on paper, and words selected by finger. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPdfText } from '../../src/lib/reading/pdf';
import { booksOf, startApp, until, visit, type App, type Person } from './app';

/** More than a view draws at once, and than a page of paper holds. */
const WORKS = 130;
const PAGE = 'https://marshletters.example/articles/3-1-7';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
  await me.importPasted(booksOf(WORKS));
  await until('the works', async () => count() === WORKS);
  await me.capture(PAGE);
  await until('the page', async () => app.rows('SELECT id FROM copy').length === 1);
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const count = () => app.rows<{ n: number }>('SELECT count(*) AS n FROM source')[0]!.n;
const copy = () => app.rows<{ id: string }>('SELECT id FROM copy')[0]!.id;

/** Without blanks: a PDF says where letters stand and not where words end. */
const squeezed = (text: string) => text.replace(/\s+/g, '');
/** What is on paper: whether words are there, and over how many sheets it goes. */
async function printed(): Promise<{ has: (words: string) => boolean; sheets: number }> {
  const { leaves } = await readPdfText(await me.page.pdf({ format: 'A4' }));
  const all = squeezed(leaves.map((leaf) => leaf.runs.map((run) => run.text).join('')).join(''));
  return { has: (words) => all.includes(squeezed(words)), sheets: leaves.length };
}
/** What of that stands on the paper. */
const onPaper = ({ has }: { has: (words: string) => boolean }, words: readonly string[]) => words.filter(has);
/** What stands around every view, and does not belong on paper. */
const AROUND = ['Capture an address', 'Search everything', 'Intake', 'Put away'];

describe('Print of the browser', () => {
  it('has a whole list, over as many sheets as it takes, and nothing around it', async () => {
    await me.open('/references');
    // What is far down is there and not drawn.
    await me.page.waitForFunction(
      (words: string) => document.body.textContent!.includes(words),
      {},
      `part ${WORKS - 1}`,
    );
    const paper = await printed();
    expect(paper.sheets).toBeGreaterThan(2);
    // APA prints the part with a full stop behind it.
    const all = Array.from({ length: WORKS }, (_, i) => `Tidal matters of the quay, part ${i}.`);
    expect(all.filter((title) => !paper.has(title))).toEqual([]);
    expect(onPaper(paper, AROUND)).toEqual([]);
  });

  it('has a source with its record and how it prints', async () => {
    const [{ id }] = app.rows<{ id: string }>("SELECT id FROM source WHERE title LIKE '%part 7'") as [
      { id: string },
    ];
    await me.open(`/sources/${id}`);
    const paper = await printed();
    expect(onPaper(paper, ['Tidal matters of the quay, part 7', '1807', ...AROUND])).toEqual([
      'Tidal matters of the quay, part 7',
      '1807',
    ]);
  });

  it('has all of a kept page, down to its last words', async () => {
    await me.open(`/copies/${copy()}`);
    const last = await me.page.$eval('iframe', (f) => {
      const text = (f as HTMLIFrameElement).contentDocument!.body.innerText.trim().replace(/\s+/g, ' ');
      return text.slice(-40);
    });
    const wanted = ['Within six years of a breach', last];
    expect(onPaper(await printed(), [...wanted, ...AROUND])).toEqual(wanted);
  });
});

describe('a finger', () => {
  it('selects words by the handles of a selection, and they are kept as a passage', async () => {
    await me.page.setViewport({ width: 420, height: 800, hasTouch: true, isMobile: true });
    await me.open(`/copies/${copy()}`);
    const frame = (await (await me.page.waitForSelector('iframe.open'))!.contentFrame())!;
    // A finger touches the page; the browser's handles then move the ends, of which a page hears nothing but that.
    await frame.evaluate(() => {
      const target = document.querySelector('p')!;
      const touch = new Touch({ identifier: 1, target, clientX: 60, clientY: 60 });
      target.dispatchEvent(new TouchEvent('touchstart', { touches: [touch], bubbles: true }));
      const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
      while (walker.nextNode()) {
        const node = walker.currentNode as Text;
        const at = node.data.indexOf('Within six years of a breach');
        if (at === -1) continue;
        // The ends come to rest in two steps.
        document.getSelection()!.setBaseAndExtent(node, at, node, at + 6);
        document.getSelection()!.extend(node, at + 'Within six years'.length);
        return;
      }
      throw new Error('the words are not there');
    });
    await me.see('New passage');
    await me.type('Gist', 'How soon');
    await me.press('Keep passage');
    await until('the passage', async () => app.rows('SELECT id FROM passage').length === 1);
    expect(app.rows('SELECT exact, gist FROM passage')).toEqual([
      { exact: 'Within six years', gist: 'How soon' },
    ]);
  });
});
