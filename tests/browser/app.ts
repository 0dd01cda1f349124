import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { startStandIns, type StandIns } from '../../stand-ins/server';
import { launch } from './chromium';

/** In a page: the last press went beside what was meant. */
declare global {
  var missed: boolean | undefined;
}

/** Longest anything is waited for, in milliseconds: no test is about time. */
const WAIT = 120_000;

/** Asks again until there is an answer; fails with what was waited for. */
export async function until<T>(
  what: string,
  ask: () => Promise<T | undefined | false>,
  ms = WAIT,
): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (answer) return answer;
    if (Date.now() > end) throw new Error(`waited in vain for ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** A built application on a data folder of its own, with the stand-ins behind it. */
export interface App {
  url: string;
  dataFolder: string;
  standIns: StandIns;
  /** Everything the server logged. */
  logged(): string;
  /** What it printed for who started it. */
  printed(): string;
  /** Rows straight from the database file. */
  rows<T = Record<string, unknown>>(sql: string, ...values: unknown[]): T[];
  /** Memory the server's own process holds, in bytes (Linux). */
  memory(): number;
  /** Ends the server at once, as a power cut would. */
  kill(): Promise<void>;
  start(): Promise<void>;
  /** Errors in what pages run that nothing caught. */
  wrong: string[];
  /** Ends it for good; fails where it logged an error that nobody foresaw, or pages had one that nothing caught. */
  stop(): Promise<void>;
}

/** Starts it; `allow` are more hosts of the simulated outside, as `RETEXA_ALLOW_HOSTS` has them, `env` what else it is told. */
export async function startApp({ allow = '', env = {} as Record<string, string> } = {}): Promise<App> {
  const dataFolder = await mkdtemp(join(tmpdir(), 'retexa-test-'));
  const standIns = await startStandIns();
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let server: ChildProcess | undefined;
  let log = '';
  let printed = '';
  const wrong: string[] = [];

  async function start() {
    server = spawn('node', ['scripts/start.mjs'], {
      env: {
        ...process.env,
        ...standIns.env,
        RETEXA_ALLOW_HOSTS: [allow, standIns.env.RETEXA_ALLOW_HOSTS].filter(Boolean).join(','),
        RETEXA_DATA: dataFolder,
        RETEXA_PORT: String(port),
        NODE_ENV: 'production',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    server.stdout!.on('data', (chunk: Buffer) => (printed += chunk.toString()));
    server.stderr!.on('data', (chunk: Buffer) => (log += chunk.toString()));
    await until('the server', async () => {
      if (server!.exitCode !== null) throw new Error(`the server ended: ${log}`);
      return fetch(url).then(
        (r) => r.ok,
        () => false,
      );
    });
  }
  async function kill() {
    if (!server || server.exitCode !== null || server.signalCode !== null) return;
    const gone = once(server, 'exit');
    server.kill('SIGKILL');
    await gone;
  }
  await start();
  return {
    url,
    dataFolder,
    standIns,
    logged: () => log,
    printed: () => printed,
    memory: () =>
      1024 * Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server!.pid}/status`, 'utf8'))?.[1] ?? 0),
    rows<T>(sql: string, ...values: unknown[]): T[] {
      const db = new Database(join(dataFolder, 'retexa.sqlite'), { readonly: true });
      try {
        return db.prepare(sql).all(...values) as T[];
      } finally {
        db.close();
      }
    },
    kill,
    start,
    wrong,
    async stop() {
      await kill();
      await standIns.stop();
      await rm(dataFolder, { recursive: true, force: true });
      const unforeseen = log.split('\n').filter((line) => /"level":(?:50|60)/.test(line));
      if (unforeseen.length)
        throw new Error(`the server failed in what nobody foresaw:\n${unforeseen.join('\n')}`);
      if (wrong.length) throw new Error(`what pages run failed:\n${[...new Set(wrong)].join('\n')}`);
    },
  };
}

/** A person at the browser: does what people do, sees what they see. */
export interface Person {
  page: Page;
  open(path: string): Promise<void>;
  /** Presses a button or link by the words on it. */
  press(words: string, inside?: string, again?: boolean): Promise<void>;
  /** Presses what a CSS selector finds, the first that is there to be pressed. */
  click(selector: string, again?: boolean): Promise<void>;
  /** Types into a field found by its label, in place of what was there. */
  type(label: string, text: string): Promise<void>;
  choose(label: string, option: string): Promise<void>;
  /** Waits until the words are on the page. */
  see(words: string, inside?: string): Promise<void>;
  gone(words: string, inside?: string): Promise<void>;
  /** Captures with the field at the top. */
  capture(text: string): Promise<void>;
  /** Pastes references on the import page and has them imported. */
  importPasted(text: string): Promise<void>;
  /** Selects words in the page the reader shows, with real mouse events. */
  selectInPage(words: string): Promise<void>;
  downloads: string;
  leave(): Promise<void>;
}

export async function visit(app: App, browser?: Browser): Promise<Person> {
  const own = browser ?? (await launch());
  const page = await own.newPage();
  page.setDefaultTimeout(WAIT);
  // Asked at every frame, as is usual, a page that waits for the server takes the time it needs.
  const waitFor = page.waitForFunction.bind(page);
  page.waitForFunction = (asked, options, ...rest) => waitFor(asked, { polling: 50, ...options }, ...rest);
  page.on('pageerror', (error) =>
    app.wrong.push(`at ${page.url()}: ${String((error as Error).stack ?? error)}`),
  );
  const downloads = await mkdtemp(join(tmpdir(), 'retexa-downloads-'));
  const session = await own.target().createCDPSession();
  await session.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
    eventsEnabled: true,
  });
  await own
    .defaultBrowserContext()
    .overridePermissions(app.url, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write']);

  /**
   * Presses what has come to rest, the same place over two frames, and what nothing else covers, as a person would. Says what is to
   * be done anew: it was `gone`, drawn anew meanwhile, or `missed`, since it moved away just as it was pressed.
   */
  async function pressed(element: ElementHandle<Node>, words: string): Promise<'done' | 'gone' | 'missed'> {
    const rests = await element.evaluate(async (e, w) => {
      (e as HTMLElement).scrollIntoView({ block: 'center' });
      const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
      const start = performance.now();
      let looked = 0;
      for (let last = ''; ;) {
        await frame();
        await frame();
        if (!e.isConnected) return 'gone';
        // What was scrolled away meanwhile is brought back, as a person would.
        if (++looked % 15 === 0) (e as HTMLElement).scrollIntoView({ block: 'center' });
        const { x, y, width, height } = (e as HTMLElement).getBoundingClientRect();
        const top = document.elementFromPoint(x + width / 2, y + height / 2);
        // Behind an open dialogue the root is what a press finds, and nothing happens.
        const behind = document.querySelector('dialog:modal') && !(e as HTMLElement).closest('dialog:modal');
        // What stands over a box in its own label is pressed in its place.
        const reached =
          top &&
          (e.contains(top) || top.contains(e as Node) || (e as HTMLElement).closest('label')?.contains(top));
        if (!behind && last === `${x} ${y}` && reached) {
          const within = e.contains(top);
          globalThis.missed = false;
          addEventListener(
            'pointerdown',
            (event) => (globalThis.missed = within && !e.contains(event.target as Node)),
            {
              capture: true,
              once: true,
            },
          );
          return 'rests';
        }
        last = `${x} ${y}`;
        if (performance.now() - start > 120_000)
          throw new Error(
            `“${w}” does not come to rest where it can be pressed; there is ${top?.outerHTML.slice(0, 200)}`,
          );
      }
    }, words);
    if (rests === 'gone') return rests;
    try {
      await (element as ElementHandle<Element>).click();
    } catch (e) {
      if (/detached from document/.test(String(e))) return 'gone';
      throw e;
    }
    // A page that is left says nothing.
    const missed = await page.evaluate(() => Boolean(globalThis.missed)).catch(() => false);
    return missed ? 'missed' : 'done';
  }

  const person: Person = {
    page,
    downloads,
    async open(path) {
      await page.goto(app.url + path, { waitUntil: 'load' });
      await page.waitForSelector('html[data-ready="true"]');
      await page.evaluate(() => document.fonts.ready.then(() => undefined));
      // A document is read once it stands where it is to be read.
      if (path.startsWith('/copies/'))
        await page.waitForFunction(
          () => !document.querySelector('iframe') || document.querySelector('iframe.open'),
        );
    },
    async press(words, inside = 'body', again = true) {
      const handle = await page.waitForFunction(
        (w: string, within: string) =>
          [
            ...(document
              .querySelector(within)
              ?.querySelectorAll<HTMLElement>('button, a, summary, [role="option"] button') ?? []),
          ].find(
            (e) =>
              (e.textContent?.replace(/\s+/g, ' ').trim() === w ||
                e.getAttribute('aria-label') === w ||
                e.textContent?.replace(/\s+/g, ' ').trim().startsWith(`${w} `)) &&
              e.getClientRects().length > 0 &&
              !(e as HTMLButtonElement).disabled,
          ),
        {},
        words,
        inside,
      );
      const how = await pressed(handle.asElement()!, words);
      if (how === 'gone') await person.press(words, inside, again);
      if (how === 'missed' && again) await person.press(words, inside, false);
    },
    async click(selector, again = true) {
      const handle = await page.waitForFunction(
        (s: string) =>
          [...document.querySelectorAll<HTMLElement>(s)].find(
            (e) => e.getClientRects().length > 0 && !(e as HTMLButtonElement).disabled,
          ),
        {},
        selector,
      );
      const how = await pressed(handle.asElement()!, selector);
      if (how === 'gone') await person.click(selector, again);
      if (how === 'missed' && again) await person.click(selector, false);
    },
    async type(label, text) {
      const handle = await page.waitForFunction(fieldByLabel, {}, label);
      const field = handle.asElement() as unknown as import('puppeteer-core').ElementHandle<HTMLInputElement>;
      await field.evaluate((e) => e.scrollIntoView({ block: 'center' }));
      await field.focus();
      await field.evaluate((e) =>
        e.isContentEditable ? document.getSelection()!.selectAllChildren(e) : e.select(),
      );
      if (text) await page.keyboard.type(text);
      else await page.keyboard.press('Backspace');
    },
    async choose(label, option) {
      const handle = await page.waitForFunction(fieldByLabel, {}, label);
      const select =
        handle.asElement() as unknown as import('puppeteer-core').ElementHandle<HTMLSelectElement>;
      const [value] = await until(`the option “${option}” in “${label}”`, async () => {
        const found = await select.evaluate(
          (s, o) => [...s.options].filter((x) => x.textContent?.trim().startsWith(o)).map((x) => x.value),
          option,
        );
        return found.length > 0 && found;
      });
      await select.select(value!);
    },
    async see(words, inside = 'body') {
      await page
        .waitForFunction(
          (w: string, within: string) =>
            [...document.querySelectorAll<HTMLElement>(within)].some((e) =>
              e.innerText.replace(/\s+/g, ' ').includes(w),
            ),
          { timeout: WAIT },
          words,
          inside,
        )
        .catch(async () => {
          const { text, focus } = await page.evaluate(() => ({
            text: document.body.innerText.replace(/\n+/g, '\n'),
            focus: document.activeElement?.outerHTML.slice(0, 300) ?? 'nothing',
          }));
          // What is said at the foot comes last.
          const seen = text.length <= 3_000 ? text : `${text.slice(0, 1_500)}\n…\n${text.slice(-1_500)}`;
          throw new Error(
            `“${words}” was not seen in ${inside}; the focus is on ${focus}; on the page: ${seen}`,
          );
        });
    },
    async gone(words, inside = 'body') {
      await page.waitForFunction(
        (w: string, within: string) =>
          ![...document.querySelectorAll<HTMLElement>(within)].some((e) =>
            e.innerText.replace(/\s+/g, ' ').includes(w),
          ),
        {},
        words,
        inside,
      );
    },
    async capture(text) {
      await person.type('What to capture', text);
      await page.keyboard.press('Enter');
    },
    async importPasted(text) {
      await person.open('/import');
      await person.press('Or paste references');
      await page.$eval(
        'textarea[aria-label="References to import"]',
        (field, value) => {
          (field as HTMLTextAreaElement).value = value as string;
          field.dispatchEvent(new Event('input', { bubbles: true }));
        },
        text,
      );
      await person.press('Import what is pasted');
    },
    async selectInPage(words) {
      await page.waitForSelector('iframe.open');
      const frame = await (await page.waitForSelector('iframe'))!.contentFrame();
      const box = await page.$eval(
        'iframe',
        (f, w) => {
          const doc = (f as HTMLIFrameElement).contentDocument!;
          const walker = doc.createTreeWalker(doc.body, NodeFilter.SHOW_TEXT);
          while (walker.nextNode()) {
            const node = walker.currentNode as Text;
            const at = node.data.indexOf(w);
            if (at === -1) continue;
            const range = doc.createRange();
            range.setStart(node, at);
            range.setEnd(node, at + w.length);
            const outer = f.getBoundingClientRect();
            document
              .querySelector('.reader')!
              .scrollBy(0, range.getBoundingClientRect().top + outer.top - 300);
            const moved = f.getBoundingClientRect();
            const rects = [...range.getClientRects()];
            const [first, last] = [rects[0]!, rects[rects.length - 1]!];
            return {
              from: { x: moved.left + first.left + 1, y: moved.top + first.top + first.height / 2 },
              to: { x: moved.left + last.right - 1, y: moved.top + last.top + last.height / 2 },
            };
          }
          return undefined;
        },
        words,
      );
      if (!box || !frame) throw new Error(`“${words}” is not in the page`);
      await page.mouse.move(box.from.x, box.from.y);
      await page.mouse.down();
      await page.mouse.move(box.to.x, box.to.y, { steps: 6 });
      await page.mouse.up();
    },
    async leave() {
      if (browser) await page.close();
      else await own.close();
      await rm(downloads, { recursive: true, force: true });
    },
  };
  return person;
}

/** Runs in the page: the field a label names, by `label`, `aria-label` or placeholder. */
function fieldByLabel(label: string): Element | undefined {
  const visible = (e: Element) => e.getClientRects().length > 0;
  for (const l of document.querySelectorAll('label')) {
    const words = (l.querySelector('.small-label') ?? l).textContent?.trim();
    if (words !== label) continue;
    const field = l.htmlFor ? document.getElementById(l.htmlFor) : l.querySelector('input, select, textarea');
    if (field && visible(field)) return field;
  }
  return [...document.querySelectorAll('input, select, textarea, [role="textbox"]')].find(
    (e) => visible(e) && (e.getAttribute('aria-label') === label || e.getAttribute('placeholder') === label),
  );
}

/** A file of so many books, each of another part. */
export const booksOf = (count: number): string =>
  Array.from(
    { length: count },
    (_, i) =>
      `@book{b${i}, title={Tidal matters of the quay, part ${i}}, author={Ng, Ada}, year={${1800 + (i % 200)}}, publisher={Quay}}`,
  ).join('\n');

/** Waits for a file in the folder downloads go to, and gives its bytes. */
export async function downloadedBytes(person: Person, name: string): Promise<Buffer> {
  await until(`the download ${name}`, async () => (await readdir(person.downloads)).includes(name));
  const bytes = await readFile(join(person.downloads, name));
  // The next download of this name is a new one.
  await rm(join(person.downloads, name));
  return bytes;
}

/** Waits for a file in the folder downloads go to, and reads it as text. */
export const downloaded = async (person: Person, name: string): Promise<string> =>
  (await downloadedBytes(person, name)).toString('utf8');
