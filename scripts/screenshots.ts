/**
 * Takes the pictures in docs/screenshots from a running demo (`npm run demo` in another terminal).
 * `tsx scripts/screenshots.ts [FOLDER] [NAME …]`.
 */
import { mkdirSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { launch } from '../tests/browser/chromium';

const base = process.env.RETEXA_ORIGIN ?? `http://127.0.0.1:${process.env.RETEXA_PORT ?? 5180}`;
const [folder = 'docs/screenshots', ...only] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });

const browser = await launch();
const page = await browser.newPage();
// The compiler of this script calls a helper in functions that are sent into the page.
await page.evaluateOnNewDocument('globalThis.__name = (value) => value');

async function open(path: string, ready: string) {
  await page.goto(base + path, { waitUntil: 'load' });
  await page.waitForSelector('html[data-ready="true"]');
  await page.waitForSelector(ready);
  await page
    .waitForFunction(() => !document.querySelector('.reference .waiting'), { timeout: 20_000 })
    .catch(() => undefined);
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  await page.waitForFunction(() =>
    [...document.images].every((i) => i.complete || i.getBoundingClientRect().top > innerHeight),
  );
}
const firstHref = (selector: string) =>
  page.$eval(selector, (a) => new URL((a as HTMLAnchorElement).href).pathname);

async function inFrame(p: Page) {
  await p.waitForSelector('iframe.open');
  await p.waitForFunction(() => document.querySelector('iframe')?.contentDocument?.body?.textContent?.trim());
}

/** Selects words in the reader as a person would with the mouse. */
async function select(words: string) {
  await page.evaluate((wanted) => {
    const frame = document.querySelector('iframe')!;
    const doc = frame.contentDocument!;
    const walker = doc.createTreeWalker(doc.body, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const node = walker.currentNode as Text;
      const at = node.data.indexOf(wanted);
      if (at === -1) continue;
      const range = doc.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + wanted.length);
      doc.getSelection()!.removeAllRanges();
      doc.getSelection()!.addRange(range);
      doc.dispatchEvent(new MouseEvent('mouseup', { bubbles: true }));
      return;
    }
  }, words);
}

const dark = (on: boolean) =>
  page.evaluate((d) => {
    localStorage.setItem('retexa-light', d ? 'dark' : 'light');
  }, on);

/** Entries of a file that are partly in the demo library. */
const READING_GROUP = `@article{haverkamp2018rates, author = {Haverkamp, Lotte and van Dijk, Bram}, title = {Rates of infill in abandoned mill ponds}, journaltitle = {Estuarine Processes}, volume = {12}, number = {4}, pages = {301--319}, date = {2018-08}, doi = {10.5555/ep.12.301}, keywords = {infill}}
@book{brandtLaw, author = {Brandt, H.}, title = {Dredging and the law of the foreshore}, publisher = {Foreshore Press}, location = {Port Ledger}, date = {1997}, edition = {1}}
@article{adeyemi2020, author = {Adeyemi, Folake}, title = {Glasswort comes home}, journaltitle = {Shore Life}, volume = {88}, number = {6}, date = {2020-06}, keywords = {ponds, glasswort}}
@thesis{oduya2024, author = {Oduya, Tolu}, title = {Ponds restored: Five dams on the northern sounds}, institution = {University of Northsound}, type = {mathesis}, date = {2024}}
`;

/** Brings a view to where its picture is taken; what it gives is done after. */
const SHOTS: Record<string, () => Promise<void | (() => Promise<unknown>)>> = {
  desk: () => open('/', '.desk'),
  proof: async () => {
    await open('/proof?check=title-capitals', '.found li');
    await page.click('.acts button[aria-pressed="false"]');
    await page.waitForSelector('.prints');
  },
  sources: async () => {
    await open('/sources', '[data-source]');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Space');
  },
  intake: async () => {
    await open('/intake', '.values');
    await inFrame(page);
    await page.waitForFunction(() =>
      document.querySelector('.printed .reference')?.textContent?.includes('('),
    );
  },
  source: async () => {
    await open('/sources?q=turbines', '[data-source] .text a');
    await open(await firstHref('[data-source] .text a'), '.sheet');
    await page.waitForFunction(() =>
      document.querySelector('.printed .reference')?.textContent?.includes('('),
    );
  },
  reader: async () => {
    await open('/passages?q=refill', '[data-passage]');
    const path = await firstHref('[data-passage] .from a');
    await open(path, '.reader');
    await inFrame(page);
    await page.waitForSelector('.card');
    await select('Wider breaches gave a more even cover, though not a faster one.');
    await page.waitForSelector('.place');
    await page.$eval('.place', (sheet) => sheet.scrollIntoView({ block: 'end' }));
  },
  passages: () => open('/passages?sort=source&group=section', '[data-passage]'),
  duplicates: async () => {
    await open('/duplicates', '.prints');
    await page.waitForFunction(() =>
      document.querySelector('.prints .reference')?.textContent?.includes('('),
    );
  },
  references: () => open('/references', '.entry'),
  import: async () => {
    await open('/import', '.report');
    const id = await page.evaluate(async (body) => {
      const answer = await fetch('/api/import?name=reading-group.bib', {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body,
      });
      return ((await answer.json()) as { id: string }).id;
    }, READING_GROUP);
    await page.waitForSelector('.merging');
    return () =>
      page.evaluate(
        (job) =>
          fetch(`/api/jobs/${job}`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: '{"act":"dismiss"}',
          }),
        id,
      );
  },
  search: async () => {
    await open('/search?q=tide%20mill', '.body');
    await page.waitForSelector('.source [data-field]');
  },
  leads: async () => {
    await open('/leads', '[data-lead]');
    await page.$$eval('[data-lead]', (all) => {
      const row = all.find((l) => l.textContent?.includes('Eel grass'))!;
      [...row.querySelectorAll('button')].find((b) => b.textContent?.trim() === 'Look it up')!.click();
    });
    await page.waitForSelector('.offers');
  },
  notes: () => open('/notes', '[data-note]'),
  outline: async () => {
    await open('/outline', '.lines [data-line]');
    await page.$$eval('.shelf [data-shelf] input', (all) =>
      all.slice(1, 3).forEach((box) => (box as HTMLElement).click()),
    );
    await page.$$eval('.lines [data-line]', (all) => (all[2] as HTMLElement).click());
  },
  draft: async () => {
    await open('/draft', '[aria-label="Draft"][contenteditable="true"] .in-cite');
    await page.waitForSelector('[aria-label="References"] .entry');
  },
  'ways-in': async () => {
    await open('/ways-in', '[data-preset]');
    await page.$$eval('button', (all) => all.find((b) => b.textContent?.trim() === 'Change')?.click());
    await page.waitForSelector('.example dl');
  },
  pdf: async () => {
    await open('/sources?q=sluices%20mud', '[data-source] .text a');
    await open(await firstHref('[data-source] .text a'), '.sheet');
    await open(await firstHref('.margin .copy a'), '.reader');
    await inFrame(page);
    await page.waitForFunction(() => {
      const picture = document
        .querySelector('iframe')!
        .contentDocument!.querySelector<HTMLImageElement>('.leaf img');
      return picture?.complete && picture.naturalWidth > 0;
    });
    await select('A tide mill works by penning the flood behind a dam');
    await page.waitForSelector('.place');
  },
  members: async () => {
    await open('/members', '.view');
    await page.evaluate(async () => {
      const call = async (path: string, body: unknown) => {
        const response = await fetch(path, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        });
        if (!response.ok) throw new Error(await response.text());
        return (await response.json()) as { secret: string };
      };
      const self = { name: 'Ines Costa', mail: 'ines@northsound.example', phrase: 'sluice marsh ledger eel' };
      await call('/api/door/set-up', self);
      const people = ['Tsz Ho Ng', 'Margaret Pell'].map((name, i) => ({ name, mail: `p${i}@x.example` }));
      for (const { name, mail } of people) {
        const { secret } = await call('/api/invitations', {
          role: name === 'Tsz Ho Ng' ? 'editor' : 'reader',
          name,
          days: 30,
        });
        // Taken by somebody who is not signed in here.
        const account = { name, mail, phrase: 'toll rent gate saltpan' };
        await fetch('/api/door/invited', {
          method: 'POST',
          credentials: 'omit',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ secret, account }),
        });
      }
      await call('/api/invitations', { role: 'annotator', name: 'The reading group', days: 7 });
    });
    await open('/members', '.view');
    await page.waitForFunction(() => document.body.innerText.includes('Margaret Pell'));
  },
  /** After the members, two of whom screen what is there. */
  choices: async () => {
    await open('/sources', '[data-source]');
    const ids = await page.$$eval('[data-source]', (all) =>
      all.slice(0, 12).map((e) => (e as HTMLElement).dataset.source!),
    );
    const post = (at: Page, path: string, body: unknown) =>
      at.evaluate(
        async (to, said) => {
          const response = await fetch(to, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: said,
          });
          if (!response.ok) throw new Error(await response.text());
          return (await response.json()) as { id: string; people: string[] };
        },
        path,
        JSON.stringify(body),
      );
    const other = await (await browser.createBrowserContext()).newPage();
    await other.goto(`${base}/sign-in`);
    await post(other, '/api/door/sign-in', { mail: 'p0@x.example', phrase: 'toll rent gate saltpan' });
    // Of the libraries they are in, the one that is shared.
    await other.goto(`${base}/members`);
    await other.waitForSelector('html[data-ready="true"]');
    await Promise.all([
      other.waitForNavigation(),
      other.click('button[aria-label^="Open "]:not([aria-label*="My library"])'),
    ]);
    const who = async (at: Page) =>
      (await post(at, '/api/here', { page: 'picture', source: ids[0]! })).people;
    const [self] = await who(page);
    const voters = [self!, ...(await who(other)).filter((id) => id !== self)];
    const { id } = await post(page, '/api/choices', {
      name: 'Which go into the review of restored ponds',
      way: 'screening',
      voters,
      reasons: ['not on the subject', 'no evidence of its own'],
      ids,
    });
    const vote = (at: Page, source: string, out: boolean) =>
      post(at, `/api/choices/${id}/votes`, {
        id: source,
        says: out ? 'exclude' : 'include',
        reason: out ? 'not on the subject' : '',
      });
    for (const [i, source] of ids.entries()) {
      await vote(page, source, i % 3 === 1);
      await vote(other, source, i % 3 === 1 && i !== 4);
    }
    await open(`/choices/${id}?see=outcome`, '.rows');
    await page.waitForSelector('.apexcharts-bar-series');
  },
};

await open('/', '.strip');
await dark(false);
await page.evaluate(async () => {
  const thesis = [...document.querySelectorAll<HTMLOptionElement>('[aria-label="Project"] option')].find(
    (o) => o.textContent?.includes('thesis'),
  );
  await fetch('/api/scope', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ projectId: thesis?.value ?? null }),
  });
});
for (const [name, act] of Object.entries(SHOTS)) {
  if (only.length && !only.some((o) => o.replace(/-dark$/, '') === name)) continue;
  if (!only.length || only.includes(name)) {
    const after = await act();
    await page.screenshot({ path: `${folder}/${name}.png` as `${string}.png` });
    await after?.();
  }
  if (only.includes(`${name}-dark`)) {
    await dark(true);
    await act();
    await page.screenshot({ path: `${folder}/${name}-dark.png` as `${string}.png` });
    await dark(false);
  }
}
await browser.close();
