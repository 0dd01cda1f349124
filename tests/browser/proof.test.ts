import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

const titles = () =>
  app
    .rows<{ title: string }>('SELECT title FROM source WHERE binned IS NULL ORDER BY id')
    .map(({ title }) => title);

const book = (key: string, title: string, more = '') =>
  `@book{${key}, title={${title}}, author={Pell, Margaret}, publisher={Strand Press}, year={1990}${more}}`;

/** Presses an element by what is in it, with the keyboard: it is given the focus, and Enter. */
async function enterOn(words: string, within: string) {
  const found = await until(`“${words}” in ${within}`, () =>
    me.page.$$eval(
      `${within} a, ${within} button`,
      (all, text) => {
        const one = (all as HTMLElement[]).find((e) => e.textContent?.includes(text as string));
        one?.focus();
        return Boolean(one);
      },
      words,
    ),
  );
  expect(found).not.toBe(false);
  await me.page.keyboard.press('Enter');
}

describe('the proof of a library', () => {
  it('says what is found by kind, with why, from the path', async () => {
    await me.importPasted(
      [
        book('a', '{TIDE MILLS AND THEIR LEASES}'),
        book('b', '{MILLSTONES OF THE EASTERN SHORE}', ', edition={1}'),
        book('c', 'Ponds and gates', ', pages={312 pp.}'),
      ].join(' '),
    );
    await me.see('3 sources added');
    await me.open('/');
    await me.press('Proof', 'nav.path');
    await me.see('Title in capitals', 'nav.groups');
    await me.see('First edition said', 'nav.groups');
    await me.see('Capitals print as capitals', '.opened');
    await me.see('TIDE MILLS AND THEIR LEASES', '.found');
  });

  it('is of what one chose alone, and of all again', async () => {
    await me.open('/sources?q=millstones');
    await me.page.focus('.row');
    await me.page.keyboard.press('Space');
    await me.see('1 selected', '.bar');
    await me.press('More with the selected');
    await me.press('Proof them');
    await me.see('findings in the sources you chose');
    await me.see('MILLSTONES OF THE EASTERN SHORE', '.found');
    await me.gone('TIDE MILLS', '.found');
    // It stays so from one check to the next.
    await me.press('First edition said', 'nav.groups');
    await me.see('First edition said', '.opened');
    await me.see('findings in the sources you chose');
    await me.press('Proof all');
    await me.see('findings in the library');
    await me.see('TIDE MILLS AND THEIR LEASES', '.found');
  });

  it('shows how the references would print, and mends those that are picked, undone as one', async () => {
    const before = titles();
    await me.press('Show how they would print');
    await me.see('Pell, M. (1990). Tide mills and their leases. Strand Press.', '.prints');
    await me.page.click('[aria-label="Pick Pell 1990"]');
    await me.see('1 of 2 picked');
    await me.press('Pick none');
    await me.press('Pick all');
    await me.see('2 of 2 picked');
    await me.press('Mend 2 sources');
    await me.see('Mended in 2 sources: Title in capitals.', '.toasts');
    await me.gone('Title in capitals', 'nav.groups');
    expect(titles()).toEqual([
      'Tide mills and their leases',
      'Millstones of the eastern shore',
      'Ponds and gates',
    ]);
    await me.press('Undo', '.toasts');
    await me.see('Title in capitals', 'nav.groups');
    expect(titles()).toEqual(before);
  });

  it('lets what is right stand, by keys, and asks it again from the sheet', async () => {
    await enterOn('First edition said', 'nav.groups');
    await me.see('Styles say an edition only from the second on.', '.opened');
    await enterOn('Let it stand', '.opened');
    await me.see('Let stand in 1 source: First edition said.', '.toasts');
    await me.gone('First edition said', 'nav.groups');
    const [source] = app.rows<{ id: string }>("SELECT id FROM source WHERE title LIKE 'MILLSTONES%'");
    await me.open(`/sources/${source!.id}`);
    await me.see('Stands as it is', '.printed');
    await me.press('Ask again', '.printed');
    await me.see('Asked again.', '.toasts');
    await me.gone('Stands as it is', '.printed');
  });

  it('shows on the sheet how a fix would print before it is made', async () => {
    await me.page.hover('.printed');
    const fix = await me.page.waitForSelector('.printed .proof button ::-p-text(Lower the capitals)');
    await fix!.focus();
    await me.see('As it would print', '.printed');
    await me.see('Millstones of the eastern shore', '.printed .reference');
    expect(titles()[1]).toBe('MILLSTONES OF THE EASTERN SHORE');
    await me.page.keyboard.press('Enter');
    await me.see('Saved.', '.toasts');
    await until('the title to be mended', async () => titles()[1] === 'Millstones of the eastern shore');
  });

  it('puts a length where it belongs, and says when nothing more is found', async () => {
    await me.open('/proof?check=page-length');
    await me.see('This is how long it is, not where it stands', '.found');
    await me.press('Mend 1 source');
    await me.see('Mended in 1 source', '.toasts');
    const [row] = app.rows<{ record: string }>("SELECT record FROM source WHERE title LIKE 'Ponds%'");
    expect(JSON.parse(row!.record)).toMatchObject({ 'number-of-pages': '312' });
    await me.see('Length where pages are: nothing more', '.opened');
  });
});
