/** Two people choose among sources: an opinion each, an order, a screening; hidden until one has said something. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { downloaded, startApp, until, visit, type App, type Person } from './app';

let app: App;
let ada: Person;
let ben: Person;
const TITLES = ['Sluices of the sound', 'Weirs and eels', 'Grain on the flood', 'Mud in the pond'];

/** Asks the server as who is at the browser. */
const ask = <T>(of: Person, path: string, body: unknown): Promise<T> =>
  of.page.evaluate(
    async (to, said) => {
      const answer = await fetch(to, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(said),
      });
      if (!answer.ok) throw new Error(`${to}: ${answer.status} ${await answer.text()}`);
      return (await answer.json()) as T;
    },
    path,
    body as never,
  );

beforeAll(async () => {
  app = await startApp();
  ada = await visit(app);
  ben = await visit(app);
  await ada.open('/sources');
  for (const title of TITLES) await ask(ada, '/api/sources', { type: 'book', title });
  await ask(ada, '/api/projects', { name: 'Review', style: 'apa', locale: 'en-US' });
  await ask(ada, '/api/scope', { projectId: null });
  const account = { name: 'Ada Pell', mail: 'ada@harbour.example', phrase: 'sluice marsh ledger eel' };
  await ask(ada, '/api/door/set-up', account);
  await ada.open('/');
  const { secret } = await ask<{ secret: string }>(ada, '/api/invitations', {
    role: 'annotator',
    name: 'Ben',
    days: 7,
  });
  await ben.page.goto(`${app.url}/sign-in`);
  await ask(ben, '/api/door/invited', {
    secret,
    account: { name: 'Ben Okoro', mail: 'ben@harbour.example', phrase: 'toll rent gate saltpan' },
  });
  await ben.open('/');
});
afterAll(async () => {
  await ada.leave();
  await ben.leave();
  await app.stop();
});

/** Asks both about all sources. */
async function choose(name: string, way?: string) {
  await ada.open('/sources');
  await ada.see('Sluices of the sound');
  await ada.page.click('.row input[type=checkbox]');
  await ada.press('Select all 4');
  await ada.see('4 selected', '.bar');
  await ada.press('More with the selected');
  await ada.press('Choose among them…');
  await ada.type('What is chosen', name);
  if (way) {
    const radio = await ada.page.waitForFunction(
      (words: string) =>
        [...document.querySelectorAll('dialog label')].find((l) => l.textContent.includes(words)),
      {},
      way,
    );
    await (radio.asElement() as unknown as { click(): Promise<void> }).click();
  }
  await ada.see('Ben Okoro', 'dialog');
  await ada.press('Ask them');
  await ada.see(name, 'h1');
}
const key = (of: Person, ...keys: string[]) =>
  keys.reduce(async (before, one) => {
    await before;
    await of.page.keyboard.press(one as 'Enter');
  }, Promise.resolve());
const toList = async (of: Person) => (await of.page.waitForSelector('.list'))!.focus();
const votes = () => app.rows<{ n: number }>('SELECT count(*) AS n FROM vote')[0]!.n;
/** Presses a verdict’s key and waits until the server has it. */
async function verdict(of: Person, one: string) {
  const before = votes();
  await key(of, one);
  await until('the verdict', async () => votes() === before + 1);
}

describe('choosing together', () => {
  it('by opinions: what waits is said, what others think is hidden until one has said something, what is chosen is filed', async () => {
    await choose('Which go into the review');
    await ada.see('1 of 4, 0 judged by you');
    await ada.type('Reason', 'no dates in it');
    await ada.press('Leave', '.verdicts');
    await ada.see('2 of 4, 1 judged by you');
    await ada.see('hidden until you have said something yourself', '.stage');
    for (const one of ['1', '1', '2']) await verdict(ada, one);
    await ada.see('4 of 4, 4 judged by you');

    await ben.open('/');
    await ben.press('Choices');
    await ben.see('Waiting for you');
    await ben.press('Which go into the review');
    await ben.see('1 of 4, 0 judged by you');
    expect(await ben.page.$eval('body', (b) => (b as HTMLElement).innerText)).not.toContain('no dates in it');
    await verdict(ben, '1');
    await key(ben, 'ArrowUp');
    await toList(ben);
    await key(ben, 'Home');
    await ben.see('Ada Pell', '.others');
    await ben.see('no dates in it', '.others');
    // Asked and not through: it waits on. Ada sees what he said.
    await toList(ada);
    await key(ada, 'Home');
    await ada.see('Ben Okoro', '.others');
    await ben.press('What comes of it');
    await ben.see('you have judged 1 of 4');
    await ben.see('What was said of 3 of them is hidden');

    await ada.press('What comes of it');
    await ada.see('2 chosen');
    await ada.press('File the chosen in');
    await ada.press('Review', '[aria-label="File the chosen in"]:not(button)');
    await ada.see('Filed in Review.');
    expect(app.rows('SELECT * FROM filing')).toHaveLength(2);
    await ada.press('Undo');
    await until('it taken back', async () => app.rows('SELECT * FROM filing').length === 0);
    await ada.press('Save as a table (CSV)');
    const table = await downloaded(ada, 'Which go into the review.csv');
    expect(table).toContain('Leave,no dates in it');
    await ada.press('Close');
    await ada.see('Open again');
    await ben.see('Weirs and eels', '.rows');
  });

  it('by an order that is put by keys, and handed in', async () => {
    await choose('The best first', 'An order');
    const second = await ada.page.waitForSelector('ol[aria-label="Your order"] li:nth-child(2)');
    const name = await second!.$eval('.name', (e) => e.textContent);
    await second!.focus();
    await ada.page.keyboard.down('Alt');
    await key(ada, 'ArrowUp');
    await ada.page.keyboard.up('Alt');
    const first = () => ada.page.$eval('ol[aria-label="Your order"] li .name', (e) => e.textContent);
    await until('the order', async () => (await first()) === name);
    // Called away: the order one was at is there.
    await ada.open(new URL(ada.page.url()).pathname);
    expect(await first()).toBe(name);
    await ada.press('Hand in this order');
    await ada.see('Your order is handed in');
    await ada.see('This is the order you handed in.');
    await ada.press('What comes of it');
    await ada.see('3 points');
  });

  it('by screening: nobody sees the other’s until both are through; how far they agree, and what they differ in is settled', async () => {
    await choose('Screening', 'Screening by two');
    for (const one of ['1', '1', '2', '2']) await verdict(ada, one);
    await ada.see('hidden until both have judged everything', '.stage');
    await ben.open(new URL(ada.page.url()).pathname);
    for (const one of ['1', '2', '2', '2']) await verdict(ben, one);
    // 1 both in, 1 only Ada, 2 both out: 3 of 4 alike, half by chance; (.75 − .5) / (1 − .5).
    await ada.press('What comes of it');
    await ada.see('3 of 4 (75 %; 50 % would be by chance)');
    await ada.see('0.50, an agreement that is called moderate');
    await ada.see('they differ', '.rows');
    await ada.press('Judge');
    await toList(ada);
    await key(ada, 'Home', 'ArrowDown');
    await ada.press('Settle as included');
    await ada.see('Settled by Ada Pell: include', '.stage');
    await ben.press('What comes of it');
    await ben.see('settled: include', '.rows');
    await ben.page.waitForFunction(() => !document.querySelector('#file-chosen'));
  });
});
